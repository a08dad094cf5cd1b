import { addDays, type Day } from '#core/base/day'
import type { Drawing } from '#core/catalogue/drawing'
import type { Language } from '#core/supplier/language'
import { idOf } from '../ids'
import { MORE_ITEMS } from './more-items'
import { MORE_SUPPLIERS, RETIRED_ITEMS, SAME_AS, SUCCEEDED, THEIR_ITEMS, type SupplierRow } from './more-suppliers'

const SUPPLIERS: SupplierRow[] = [
  ['Corrigan Pumps', 'S-1001', 'Eastmoor', 'orders', 'EUR', 30, 6, '24.00', '250'],
  ['Brackwater Salts', 'S-1002', 'Brackwater', 'orders', 'EUR', 30, 9, '85.00', '1500'],
  ['Northmole Water', 'S-1003', 'Northmole', 'sales', 'EUR', 14, 2, '18.00', null],
  ['Harbour Waste', 'S-1004', 'Hallamere', 'office', 'EUR', 14, 4, null, null],
  ['Fennmark Laboratory Supply', 'S-1005', 'Fennmark', 'orders', 'EUR', 30, 5, '12.50', '200'],
  ['Coldreach Fish', 'S-1006', 'Coldreach', 'desk', 'EUR', 14, 3, '40.00', '600'],
  [
    'Silverquay Acrylics',
    'S-1007',
    'Silverquay',
    'orders',
    'EUR',
    30,
    12,
    '30.00',
    '800',
    'active',
    'Panels over two metres come by lorry on Thursdays only.',
  ],
  ['Mistral Chandlery', 'S-1008', 'Westhaven', 'orders', 'EUR', 30, 5, '15.00', '300'],
  ['Tidewell Instruments', 'S-1009', 'Tidewell', 'orders', 'GBP', 30, 14, '22.00', null],
  [
    'Østervig Net and Rope',
    'S-1010',
    'Østervig',
    'ordre',
    'DKK',
    30,
    8,
    '180.00',
    '4000',
    'active',
    'Winches and long nets come by ferry: the boat has to be at its berth on a Tuesday.',
  ],
  ['Larkfield Veterinary', 'S-1011', 'Larkfield', 'orders', 'EUR', 30, 3, '9.50', '150'],
  ['Quillon Signs', 'S-1012', 'Hallamere', 'studio', 'EUR', 14, 7, null, null],
  ['Stonebridge Tools', 'S-1013', 'Stonebridge', 'orders', 'EUR', 30, 2, '8.00', '100'],
  ['Kestrel Diving Works', 'S-1014', 'Southquay', 'service', 'EUR', 30, 10, null, null],
  ['Moorgate Paper', 'S-1016', 'Moorgate', 'orders', 'EUR', 30, 2, '6.00', '60'],
  [
    'Whitsand Catering',
    'S-1017',
    'Whitsand',
    'kitchen',
    'EUR',
    14,
    3,
    null,
    null,
    'active',
    'Orders for the same day are not taken.',
  ],
  ['Elmhurst Microscopy', 'S-1018', 'Elmhurst', 'service', 'EUR', 30, 15, '20.00', null],
  ['Saltmarsh Electrical', 'S-1019', 'Saltmarsh', 'trade', 'EUR', 30, 3, '9.00', '150'],
  [
    'Dunmere Castings',
    'S-1015',
    'Dunmere',
    'orders',
    'EUR',
    30,
    20,
    null,
    null,
    'on hold',
    'On hold since the last castings were porous.',
  ],
]
/** What some of them take an order for at least, in their currency. */
const MINIMUM_ORDERS: Record<string, string> = {
  'Cantle Workwear': '60',
  'Hollin Hygiene': '45',
  'Kittiwake Safety': '75',
  'Saltmarsh Electrical': '50',
}
/** In which their orders are written, where that is not English. */
const LANGUAGES: Readonly<Record<string, Language>> = { 'Birkholm Pumpworks': 'de', 'Mistral Chandlery': 'fr' }
/** Suppliers and items whose warning has to be read before a request is sent. */
const MUST_BE_READ = new Set(['Østervig Net and Rope', 'FL-FO-5'])

export const SUPPLIER_ROWS = [...SUPPLIERS, ...MORE_SUPPLIERS].map(
  ([name, number, town, mail, currency, terms, lead, freight, freeFrom, standing, warning]) => ({
    id: idOf('supplier', name),
    name,
    number,
    town,
    address: `Trade Street 1, ${town}`,
    email:
      mail === null ? null : `${mail}@${name.toLowerCase().replace(/ø/g, 'o').split(' ')[0] ?? 'supplier'}.example`,
    currency,
    termsKind: 'net' as const,
    termsDays: terms,
    leadDays: lead,
    freight,
    freightFreeFrom: freeFrom,
    minimumOrder: MINIMUM_ORDERS[name] ?? null,
    language: LANGUAGES[name] ?? 'en',
    standing: standing ?? 'active',
    warning: warning ?? null,
    warningMode: MUST_BE_READ.has(name) ? 'must be read' : 'informs',
    taxNumber: `HL${String(7_400_100 + Number(number.slice(2)) * 37)}`,
  }),
)

export const ACCOUNTS = [
  ['610', 'Pumps and filters'],
  ['612', 'Salt and water'],
  ['614', 'Ozone'],
  ['616', 'Waste'],
  ['620', 'Laboratory reagents'],
  ['622', 'Feed'],
  ['624', 'Veterinary supplies'],
  ['630', 'Tools and wear'],
  ['632', 'Exhibit building'],
  ['634', 'Signs and print'],
  ['640', 'Boat and rope'],
  ['642', 'Diving'],
  ['650', 'Training'],
  ['660', 'Office'],
  ['670', 'Instruments'],
].map(([code, name]) => ({ code: code ?? '', name: name ?? '' }))

const CATEGORIES: [name: string, account: string, drawing: Drawing][] = [
  ['Water treatment', '610', 'drop'],
  ['Pump parts', '610', 'ring'],
  ['Sea salt', '612', 'bag'],
  ['Ozone parts', '614', 'flask'],
  ['Waste removal', '616', 'truck'],
  ['Reagents', '620', 'flask'],
  ['Frozen feed', '622', 'fish'],
  ['Veterinary', '624', 'medicine'],
  ['Tools', '630', 'tool'],
  ['Acrylic and building', '632', 'box'],
  ['Signs', '634', 'sign'],
  ['Rope and deck', '640', 'rope'],
  ['Diving', '642', 'gauge'],
  ['Office', '660', 'paper'],
  ['Instruments', '670', 'gauge'],
]
/** The branches of the tree, and what is part of them. */
const BRANCHES: Record<string, { drawing: Drawing; of: string[] }> = {
  'Water and pumps': { drawing: 'drop', of: ['Water treatment', 'Pump parts', 'Sea salt', 'Ozone parts'] },
  Animals: { drawing: 'fish', of: ['Frozen feed', 'Veterinary', 'Reagents'] },
  'Boat and diving': { drawing: 'rope', of: ['Rope and deck', 'Diving'] },
  'House and visitors': { drawing: 'people', of: ['Acrylic and building', 'Signs', 'Office', 'Waste removal'] },
}
const branchOf = (name: string) => Object.keys(BRANCHES).find((b) => BRANCHES[b]?.of.includes(name))
export const CATEGORY_ROWS = [
  ...Object.entries(BRANCHES).map(([name, { drawing }]) => ({
    ...{ id: idOf('category', name), name, drawing },
    ...{ accountCode: null, parentId: null },
  })),
  ...CATEGORIES.map(([name, accountCode, drawing]) => {
    const branch = branchOf(name)
    const parentId = branch === undefined ? null : idOf('category', branch)
    return { id: idOf('category', name), name, accountCode, drawing, parentId }
  }),
]

/** name | category | part | unit | price | breaks "from:price" | tax | agreement */
const ITEMS: Record<string, string[]> = {
  'Corrigan Pumps': [
    'Ultraviolet lamp 80 W, amalgam|Water treatment|CP-UV-80A|H87|148.00|12:141.50|S|a',
    'Ultraviolet lamp 120 W, amalgam|Water treatment|CP-UV-120A|H87|186.40|12:178.00|S|a',
    'Quartz sleeve, 25 mm, open end|Water treatment|CP-QS-25|H87|31.50|10:27.90,50:26.40|S|a',
    'Quartz sleeve, 32 mm, closed end|Water treatment|CP-QS-32C|H87|44.10|10:41.00|S|a',
    'Gland seal for quartz sleeve 25 mm|Water treatment|CP-GS-25|H87|3.85|20:3.40|S|a',
    'Lamp exchange set: lamp, sleeve, 2 seals|Water treatment|CP-SET-80|SET|186.00||S|a',
    'Impeller, bronze, 140 mm|Pump parts|CP-IMP-140|H87|214.00||S|a',
    'Shaft seal kit, 28 mm|Pump parts|CP-SSK-28|SET|22.65|10:20.10|S|a',
    'Mechanical seal, silicon carbide, 35 mm|Pump parts|CP-MS-35|H87|96.20|5:91.00|S|a',
    'Bearing set, circulation pump P4|Pump parts|CP-BRG-P4|SET|58.90||S|a',
    'Pump coupling, rubber star, size 38|Pump parts|CP-CPL-38|H87|19.75|10:17.20|S|',
    'Circulation pump, 5.5 kW, sea-water bronze|Pump parts|CP-CIRC-55|H87|3480.00||S|a',
  ],
  'Brackwater Salts': [
    'Synthetic sea salt, 25 kg bag|Sea salt|BS-25|BG|19.50|40:18.60,160:17.90|S|a',
    'Synthetic sea salt, reef blend, 20 kg bag|Sea salt|BS-R20|BG|24.80|40:23.50|S|a',
    'Calcium chloride, 25 kg bag|Sea salt|BS-CA25|BG|31.20|10:29.80|S|',
    'Sodium bicarbonate, 25 kg bag|Sea salt|BS-BI25|BG|27.40|10:26.00|S|',
    'Magnesium chloride, 25 kg bag|Sea salt|BS-MG25|BG|29.10||S|',
  ],
  'Northmole Water': [
    'Filter sand, 0.4 to 0.8 mm, 25 kg bag|Water treatment|NW-FS-04|BG|9.80|40:8.90|S|',
    'Activated carbon, pelleted, 25 kg bag|Water treatment|NW-AC-25|BG|74.50|10:69.90|S|',
    'Quartz sleeve 25 mm, pattern part|Water treatment|88-025|H87|29.00||S|',
    'Ozone destruct catalyst, 5 litre|Ozone parts|NW-OD-5|H87|318.00||S|',
    'Ozone tubing, PVDF, 8 mm|Ozone parts|NW-OT-8|MTR|6.40|50:5.70|S|',
    'Ozone generator service kit, G40|Ozone parts|NW-OK-40|SET|412.00||S|',
    'Redox probe, sea water|Instruments|NW-RX-1|H87|164.00|4:155.00|S|',
    'Filter bag, 50 micron, size 2|Water treatment|NW-FB-50|H87|4.60|50:3.95|S|',
  ],
  'Fennmark Laboratory Supply': [
    'Salinity reagent, 500 ml|Reagents|FL-SAL-500|H87|18.40|10:16.90|S|a',
    'Nitrate test, 100 determinations|Reagents|FL-NO3-100|BX|42.60|5:39.80|S|a',
    'Ammonia test, 100 determinations|Reagents|FL-NH4-100|BX|44.90|5:41.90|S|a',
    'Phosphate test, 100 determinations|Reagents|FL-PO4-100|BX|46.10||S|a',
    'Alkalinity titrant, 1 litre|Reagents|FL-ALK-1|H87|23.70||S|a',
    'Nitrile gloves, medium, 100|Reagents|FL-GLM-100|BX|8.95|20:7.80|S|',
    'Swabs, sterile, 100|Reagents|FL-SW-100|BX|13.20||S|',
    'Microscope slides, 50|Reagents|FL-SL-50|BX|6.15|10:5.60|S|',
    'pH buffer 8.00, 500 ml|Reagents|FL-PH8-500|H87|14.30||S|',
    'Refractometer, sea water|Instruments|FL-RF-1|H87|79.00||S|',
  ],
  'Coldreach Fish': [
    'Krill, frozen, 10 kg|Frozen feed|CF-KR-10|BX|59.00|20:55.50|R|a',
    'Herring, frozen, whole, 20 kg|Frozen feed|CF-HE-20|BX|47.80|20:44.90|R|a',
    'Sprat, frozen, 10 kg|Frozen feed|CF-SP-10|BX|31.40|20:29.60|R|a',
    'Squid, frozen, cleaned, 10 kg|Frozen feed|CF-SQ-10|BX|68.20||R|a',
    'Mussels, frozen, in shell, 5 kg|Frozen feed|CF-MU-5|BX|22.70||R|a',
    'Seal-pup formula, 5 kg|Frozen feed|CF-SPF-5|H87|94.00|6:89.00|R|',
    'Brine shrimp eggs, 500 g|Frozen feed|CF-BS-500|H87|36.50|10:33.20|R|',
  ],
  'Silverquay Acrylics': [
    'Acrylic cement, two-part, 1 kg|Acrylic and building|SQ-AC-1|SET|57.00|6:52.50|S|',
    'Acrylic sheet, clear, 10 mm, 1 x 2 m|Acrylic and building|SQ-SH-10|H87|214.00||S|',
    'Acrylic panel polish, 1 litre|Acrylic and building|SQ-PP-1|H87|26.80||S|',
    'Silicone, aquarium grade, black, 310 ml|Acrylic and building|SQ-SI-B|H87|9.40|24:8.20|S|',
    'Epoxy resin, potable water, 5 kg|Acrylic and building|SQ-EP-5|SET|118.00||S|',
    'Glass-fibre mat, 450 g, 10 m²|Acrylic and building|SQ-GF-450|RO|64.00||S|',
  ],
  'Mistral Chandlery': [
    'Antifouling paint, 5 litre|Rope and deck|MC-AF-5|H87|162.00|6:151.00|S|',
    'Shackle, stainless, 12 mm|Rope and deck|MC-SH-12|H87|11.90|20:10.40|S|',
    'Anode, zinc, shaft 40 mm|Rope and deck|MC-AN-40|H87|18.30||S|',
    'Fender, 30 x 90 cm|Rope and deck|MC-FE-30|H87|72.50||S|',
    'Deck brush with pole|Rope and deck|MC-DB-1|H87|16.20||S|',
    'Life-jacket service kit|Rope and deck|MC-LK-1|SET|31.00||S|',
  ],
  'Tidewell Instruments': [
    'Conductivity probe, deep water|Instruments|TI-CP-600|H87|438.00||S|',
    'Plankton net, 200 micron, 30 cm|Instruments|TI-PN-200|H87|126.00||S|',
    'Water sampler, 5 litre|Instruments|TI-WS-5|H87|612.00||S|',
    'Probe cable, 50 m|Instruments|TI-PC-50|H87|148.50||S|',
  ],
  'Østervig Net and Rope': [
    'Winch rope, 12 mm, 200 m|Rope and deck|ON-WR-12|RO|3960.00||S|',
    'Quarantine net, knotless, 3 x 3 m|Rope and deck|ON-QN-3|H87|1180.00|4:1090.00|S|',
    'Hand net, 40 cm, soft mesh|Rope and deck|ON-HN-40|H87|214.00|10:195.00|S|',
    'Mooring line, 20 mm, 50 m|Rope and deck|ON-ML-20|RO|1420.00||S|',
  ],
  'Larkfield Veterinary': [
    'Wound spray, 250 ml|Veterinary|LV-WS-250|H87|14.60||S|',
    'Syringes, 10 ml, 100|Veterinary|LV-SY-10|BX|17.90|5:15.80|S|',
    'Electrolyte powder, 1 kg|Veterinary|LV-EL-1|H87|21.40||R|',
    'Feeding tube, seal pup, 10|Veterinary|LV-FT-10|BX|38.60||S|',
    'Disinfectant concentrate, 5 litre|Veterinary|LV-DI-5|H87|49.50|4:46.00|S|',
  ],
  'Stonebridge Tools': [
    'Torque wrench, 20 to 100 Nm|Tools|ST-TW-100|H87|134.00||S|',
    'Stainless screws, A4, 5 x 40, per 100|Tools|ST-SC-540|H87|18.90||S|',
    'Cable ties, 300 mm, 100|Tools|ST-CT-300|PK|7.40|10:6.20|S|',
    'Cutting discs, 125 mm, 25|Tools|ST-CD-125|BX|22.80||S|',
    'Hose clamp, stainless, 40 to 60 mm|Tools|ST-HC-60|H87|2.35|50:1.90|S|',
    'Work gloves, pair|Tools|ST-WG-9|PR|6.80|24:5.90|S|',
    'Head torch, waterproof|Tools|ST-HT-2|H87|34.50||S|',
  ],
  'Kestrel Diving Works': [
    'Dive-cylinder inspection|Diving|KD-IN-1|E48|50.00|20:46.00|S|a',
    'Regulator service|Diving|KD-RS-1|E48|88.00||S|a',
    'Dry-suit seal replacement|Diving|KD-DS-1|E48|112.00||S|',
    'Dive mask, low volume|Diving|KD-MA-1|H87|47.00||S|',
  ],
  'Quillon Signs': [
    'Sign, 60 x 40 cm, two languages|Signs|QS-64-2|H87|25.00|10:22.50|S|',
    'School-visit pack, printed, 100|Signs|QS-SV-100|BX|68.00||R|',
  ],
}

/** An item that is priced per hundred. */
const PER_HUNDRED = new Set(['ST-SC-540'])

/** What has to be known of an item when it is picked. */
const ITEM_WARNINGS: Record<string, string> = {
  'FL-FO-5': 'Formaldehyde goes to the poison cabinet of Animal Care only; its keeper signs for it.',
  'CP-CIRC-55': 'Weighs 86 kg: the yard needs a day’s notice for the crane.',
  'NW-OA-1': 'Is exchanged against the old cell: send it along.',
}
/** An item that cannot be asked for any more. */
const STOPPED: Record<string, string> = { 'BS-DR200': 'No longer made; take a drum from the store.' }

const SOURCES = [ITEMS, MORE_ITEMS, THEIR_ITEMS, RETIRED_ITEMS]
const ALL = [...new Set(SOURCES.flatMap((s) => Object.keys(s)))].map((name): [string, string[]] => [
  name,
  SOURCES.flatMap((s) => s[name] ?? []),
])
const idOfPart = (part: string | undefined) => (part === undefined ? null : idOf('item', part))

/** How many units a pack of the supplier holds. */
const PACKS: Record<string, string> = { 'CP-GS-25': '10', 'ST-HC-60': '25' }

export const ITEM_ROWS = ALL.flatMap(([supplierName, lines]) => {
  const s = SUPPLIER_ROWS.find((x) => x.name === supplierName)
  if (s === undefined) throw new Error(`no supplier ${supplierName}`)
  return lines.map((line) => {
    const [name = '', category = '', part = '', unit = '', price = '', breaks = '', tax = 'S', agreement = ''] =
      line.split('|')
    return {
      id: idOf('item', part),
      number: `I-${part}`,
      name,
      description: '',
      categoryId: idOf('category', category),
      category,
      supplierId: s.id,
      supplierName,
      supplierPart: part,
      unit,
      priceBase: PER_HUNDRED.has(part) ? '100' : '1',
      currency: s.currency,
      taxCode: tax,
      leadDays: s.leadDays,
      packSize: PACKS[part] ?? null,
      hasAgreement: agreement === 'a' ? 1 : 0,
      sameAsId: idOfPart(SAME_AS[part]),
      successorId: idOfPart(SUCCEEDED[part]),
      retired: part in SUCCEEDED,
      warning: STOPPED[part] ?? ITEM_WARNINGS[part] ?? null,
      warningMode: part in STOPPED ? 'stops' : MUST_BE_READ.has(part) ? 'must be read' : 'informs',
      prices: [
        { from: '1', unitPrice: price, since: null, until: null },
        ...breaks
          .split(',')
          .filter((b) => b !== '')
          .map((b) => {
            const [from = '1', unitPrice = '0', since = '', until = ''] = b.split(':')
            return {
              from,
              unitPrice,
              since: since === '' ? null : Number(since),
              until: until === '' ? null : Number(until),
            }
          }),
      ],
    }
  })
})

/** What some items cost before: the price, and until how many days ago. */
const BEFORE: Record<string, [price: string, until: number][]> = {
  'CP-QS-25': [
    ['29.80', -330],
    ['30.60', -150],
  ],
  'CP-UV-80A': [['139.00', -200]],
  'CP-UV-120A': [['176.00', -200]],
  'SQ-AC-1': [['54.50', -260]],
  'NW-AC-25': [['79.00', -120]],
}

/** The price steps of an item, with the days on which they hold about `today`. */
export function stepsOf(item: (typeof ITEM_ROWS)[number], today: Day) {
  const before = BEFORE[item.supplierPart] ?? []
  const last = before.at(-1)?.[1]
  return [
    ...before.map(([unitPrice, until], i) => {
      const after = before[i - 1]?.[1]
      return {
        from: '1',
        unitPrice,
        validFrom: after === undefined ? null : addDays(today, after + 1),
        validUntil: addDays(today, until),
      }
    }),
    ...item.prices.map(({ from, unitPrice, since, until }) => ({
      from,
      unitPrice,
      validFrom: since !== null ? addDays(today, since) : last === undefined ? null : addDays(today, last + 1),
      validUntil: until === null ? null : addDays(today, until),
    })),
  ]
}
