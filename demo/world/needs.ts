/** A line of a need: a catalogue part with a quantity, or a free one with its price and who might supply it. */
export type NeedLine =
  | { readonly part: string; readonly quantity: number; readonly account?: string }
  | {
      readonly text: string
      readonly quantity: number
      readonly price: string
      readonly unit: string
      readonly account: string
      readonly supplier: string | null
    }

export interface Need {
  readonly department: string
  readonly by: readonly string[]
  readonly title: string
  readonly why: string
  readonly lines: readonly NeedLine[]
}

const p = (part: string, quantity: number, account?: string): NeedLine =>
  account === undefined ? { part, quantity } : { part, quantity, account }
const free = (
  text: string,
  quantity: number,
  price: string,
  unit: string,
  account: string,
  supplier: string | null = null,
): NeedLine => ({ text, quantity, price, unit, account, supplier })

/** What lies on an order that somebody decides on. */
export const PANEL = 'Acrylic panel, cast, 80 mm, 2.4 x 1.5 m'

/** What people of Hallamere ask for, again and again. */
export const NEEDS: readonly Need[] = [
  {
    department: 'Water Systems',
    by: ['Owen Marsh', 'Rosa Castell'],
    title: 'Seals for circulation pump P4',
    why: 'pump P4 drips at the shaft and the last spare kit went in on Sunday',
    lines: [p('CP-SSK-28', 2), p('CP-BRG-P4', 1)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Filter sand for bank 2',
    why: 'bank 2 loses sand since the backwash and runs at two thirds',
    lines: [p('NW-FS-04', 24)],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Sea salt for the kelp tank',
    why: 'the kelp tank is changed in two weeks and the store holds eleven bags',
    lines: [p('BS-25', 64)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell', 'Owen Marsh'],
    title: 'Hose clamps and ties',
    why: 'the store is out of both',
    lines: [p('ST-HC-60', 30), p('ST-CT-300', 4)],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Ozone generator service kit',
    why: 'generator G40 is due after 8,000 hours',
    lines: [p('NW-OK-40', 1), p('NW-OT-8', 25)],
  },
  {
    department: 'Water Systems',
    by: ['Ines Adeyemi'],
    title: 'Impeller and coupling, protein skimmer',
    why: 'the skimmer’s impeller has lost a blade',
    lines: [p('CP-IMP-140', 1), p('CP-CPL-38', 2)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Redox probes',
    why: 'two probes drift by more than 40 millivolts',
    lines: [p('NW-RX-1', 2, '610')],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Carbon for the jellyfish loop',
    why: 'the water has a yellow tint again',
    lines: [p('NW-AC-25', 6), free('Take away spent carbon', 1, '95', 'E48', '616', 'Harbour Waste')],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Torque wrench',
    why: 'the old one is out of calibration and cannot be set',
    lines: [p('ST-TW-100', 1)],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh', 'Rosa Castell'],
    title: 'Lamps and sleeves, filter bank 1',
    why: 'the lamps of bank 1 have passed 9,000 hours',
    lines: [p('CP-UV-80A', 3), p('CP-QS-25', 3), p('CP-GS-25', 6)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Quartz sleeves',
    why: 'one sleeve is cracked and two are blind',
    lines: [p('CP-QS-25', 5)],
  },
  {
    department: 'Animal Care',
    by: ['Priya Lindqvist'],
    title: 'Salinity reagents, monthly',
    why: 'the monthly set for the laboratory',
    lines: [p('FL-SAL-500', 8), p('FL-NO3-100', 2), p('FL-ALK-1', 2)],
  },
  {
    department: 'Animal Care',
    by: ['Priya Lindqvist'],
    title: 'Gloves and swabs, quarantine',
    why: 'quarantine uses twice as many while the rays are treated',
    lines: [p('FL-GLM-100', 6), p('FL-SW-100', 2)],
  },
  {
    department: 'Animal Care',
    by: ['Kaveh Dorani'],
    title: 'Krill and herring for December',
    why: 'the freezer is planned down to the second week',
    lines: [p('CF-KR-10', 20), p('CF-HE-20', 12)],
  },
  {
    department: 'Animal Care',
    by: ['Priya Lindqvist'],
    title: 'Refractometer',
    why: 'the bench one was dropped',
    lines: [p('FL-RF-1', 1)],
  },
  {
    department: 'Animal Care',
    by: ['Kaveh Dorani'],
    title: 'Squid for the octopuses',
    why: 'the octopuses refuse sprat',
    lines: [p('CF-SQ-10', 4), p('CF-MU-5', 3)],
  },
  {
    department: 'Exhibits Workshop',
    by: ['Jonas Abara'],
    title: 'Cement and sheet, touch pool',
    why: 'the touch pool’s rim has a crack of 30 centimetres',
    lines: [p('SQ-AC-1', 3), p('SQ-SH-10', 2)],
  },
  {
    department: 'Exhibits Workshop',
    by: ['Jonas Abara'],
    title: 'Signs for the touch pool',
    why: 'the pool reopens with new rules for hands',
    lines: [p('QS-64-2', 12)],
  },
  {
    department: 'Exhibits Workshop',
    by: ['Jonas Abara'],
    title: 'Silicone and polish',
    why: 'three panels in hall C are hazed and two seams weep',
    lines: [p('SQ-SI-B', 12), p('SQ-PP-1', 4)],
  },
  {
    department: 'Exhibits Workshop',
    by: ['Jonas Abara'],
    title: 'Screws and discs',
    why: 'the kelp tunnel’s frame is put up next week',
    lines: [p('ST-SC-540', 800, '630'), p('ST-CD-125', 2, '630')],
  },
  {
    department: 'Exhibits Workshop',
    by: ['Jonas Abara'],
    title: 'Crane for the whale rib',
    why: 'the rib has to hang before the ceiling is closed',
    lines: [free('Mobile crane with driver, half a day', 1, '540', 'E48', '632')],
  },
  {
    department: 'Rescue Centre',
    by: ['Bryn Tolliver'],
    title: 'Inspection of dive cylinders',
    why: 'twenty cylinders run out of their test date this month',
    lines: [p('KD-IN-1', 20)],
  },
  {
    department: 'Rescue Centre',
    by: ['Bryn Tolliver'],
    title: 'Regulator service',
    why: 'two regulators free-flow in cold water',
    lines: [p('KD-RS-1', 2)],
  },
  {
    department: 'Rescue Centre',
    by: ['Nadia Wexcombe'],
    title: 'Formula and tubes for seal pups',
    why: 'eleven pups came in after the storm',
    lines: [p('CF-SPF-5', 6), p('LV-FT-10', 2), p('LV-EL-1', 3)],
  },
  {
    department: 'Rescue Centre',
    by: ['Bryn Tolliver'],
    title: 'Quarantine nets',
    why: 'two pens share one net',
    lines: [p('ON-QN-3', 2)],
  },
  {
    department: 'Rescue Centre',
    by: ['Priya Lindqvist'],
    title: 'Disinfectant for the pup room',
    why: 'the pup room is emptied and washed on Friday',
    lines: [p('LV-DI-5', 4), p('LV-WS-250', 6)],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Winch rope',
    why: 'the winch rope has three broken strands',
    lines: [p('ON-WR-12', 1)],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Anodes and shackles',
    why: 'the yard found the shaft anodes half gone',
    lines: [p('MC-AN-40', 4), p('MC-SH-12', 8)],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Conductivity probe',
    why: 'the deep probe flooded on the October transect',
    lines: [p('TI-CP-600', 1), p('TI-PC-50', 1)],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Antifouling paint, spring refit',
    why: 'the hull is painted while the boat is out of the water',
    lines: [p('MC-AF-5', 6), p('MC-DB-1', 2, '630')],
  },
  {
    department: 'Purchasing and Finance',
    by: ['Wes Okafor'],
    title: 'Gloves and head torches, goods yard',
    why: 'deliveries come in the dark now',
    lines: [p('ST-WG-9', 12), p('ST-HT-2', 3)],
  },
  {
    department: 'Purchasing and Finance',
    by: ['Leonie Farrow'],
    title: 'Course on tender rules',
    why: 'the rules change in January',
    lines: [free('One-day course, one person', 1, '380', 'E48', '650')],
  },
]

/** Requests that stand open on the demo's day, so that everybody has something to try. */
export const OPEN_NEEDS: readonly (Need & {
  readonly hoursAgo: number
  readonly leave: 'waiting' | 'asked' | 'draft' | 'approved' | 'sent back'
})[] = [
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Ultraviolet lamps for filter bank 3',
    why: 'the ultraviolet lamps in filter bank 3 are below half strength and the seal pool reopens on the 12th',
    hoursAgo: 43,
    leave: 'waiting',
    lines: [p('CP-UV-80A', 6), p('CP-QS-25', 6), free('Take away old lamps, mercury waste', 1, '140', 'E48', '616')],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Quartz sleeves for the spare rack',
    why: 'two sleeves cracked while the lamps were changed',
    hoursAgo: 30,
    leave: 'waiting',
    lines: [p('CP-QS-25', 4), p('CP-GS-25', 20), p('CP-MS-35', 1)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Ozone destruct catalyst',
    why: 'ozone is smelt at the degassing tower',
    hoursAgo: 26,
    leave: 'waiting',
    lines: [p('NW-OD-5', 2)],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Sea salt for the winter change',
    why: 'the ring tank is changed in January',
    hoursAgo: 22,
    leave: 'asked',
    lines: [p('BS-25', 40)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Filter bags',
    why: 'the bags of skimmer 2 are changed every week',
    hoursAgo: 20,
    leave: 'waiting',
    lines: [p('NW-FB-50', 60)],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Bearing set and coupling, pump P4',
    why: 'P4 howls when it starts',
    hoursAgo: 5,
    leave: 'waiting',
    lines: [p('CP-BRG-P4', 2), p('CP-CPL-38', 10)],
  },
  {
    department: 'Animal Care',
    by: ['Priya Lindqvist'],
    title: 'Reagents for the winter survey',
    why: 'the survey of the outer tanks needs three sets',
    hoursAgo: 28,
    leave: 'waiting',
    lines: [p('FL-NO3-100', 6), p('FL-NH4-100', 6), p('FL-PO4-100', 3)],
  },
  {
    department: 'Rescue Centre',
    by: ['Bryn Tolliver'],
    title: 'Nets for the outdoor pens',
    why: 'the outdoor pens open when the pups are weaned',
    hoursAgo: 24,
    leave: 'waiting',
    lines: [p('ON-QN-3', 4), p('ON-HN-40', 3)],
  },
  {
    department: 'Exhibits Workshop',
    by: ['Jonas Abara'],
    title: 'Sheet and cement, jellyfish tank',
    why: 'the new jellyfish tank gets its front in January',
    hoursAgo: 21,
    leave: 'waiting',
    lines: [p('SQ-SH-10', 4), p('SQ-AC-1', 6), p('SQ-EP-5', 2)],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Water sampler',
    why: 'one of two samplers leaks at depth',
    hoursAgo: 46,
    leave: 'sent back',
    lines: [p('TI-WS-5', 1)],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Mooring line',
    why: 'one mooring line is chafed through to the core',
    hoursAgo: 19,
    leave: 'approved',
    lines: [p('ON-ML-20', 1)],
  },
  {
    department: 'Water Systems',
    by: ['Rosa Castell'],
    title: 'Shaft seal kits',
    why: 'four circulation pumps are due',
    hoursAgo: 20,
    leave: 'approved',
    lines: [p('CP-SSK-28', 8)],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Shaft seal kits, spare',
    why: 'one to have in the night shift’s box',
    hoursAgo: 18,
    leave: 'approved',
    lines: [p('CP-SSK-28', 2)],
  },
  {
    department: 'Animal Care',
    by: ['Priya Lindqvist'],
    title: 'pH buffer',
    why: 'the bottle is opened at the end of the month',
    hoursAgo: 17,
    leave: 'approved',
    lines: [p('FL-PH8-500', 3)],
  },
  {
    department: 'Animal Care',
    by: ['Kaveh Dorani'],
    title: 'Disinfectant and gloves',
    why: 'the quarantine hall is taken over from the workshop',
    hoursAgo: 16,
    leave: 'approved',
    lines: [p('LV-DI-5', 2), p('FL-GLM-100', 10)],
  },
  {
    department: 'Water Systems',
    by: ['Tomas Brandt'],
    title: 'Circulation pump for the seal pool',
    why: 'the pump of the seal pool is 19 years old and takes a third more power',
    hoursAgo: 70,
    leave: 'approved',
    lines: [p('CP-CIRC-55', 1)],
  },
  // Above what a buyer may order alone: it waits on an order that somebody decides on.
  {
    department: 'Exhibits Workshop',
    by: ['Nadia Wexcombe'],
    title: 'Front panel of the jellyfish tank',
    why: 'the old panel is crazed and lets nobody see in',
    hoursAgo: 66,
    leave: 'approved',
    lines: [free(PANEL, 1, '3400', 'H87', '632', 'Silverquay Acrylics')],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Cleaning of the intake grid',
    why: 'the grid is half closed with mussels',
    hoursAgo: 15,
    leave: 'approved',
    lines: [free('Diver and boat, one tide', 1, '220', 'E48', '616')],
  },
  {
    department: 'Water Systems',
    by: ['Owen Marsh'],
    title: 'Conductivity standards',
    why: 'the probes are set every month',
    hoursAgo: 3,
    leave: 'draft',
    lines: [p('FL-SAL-500', 2, '620')],
  },
  {
    department: 'Research Boat',
    by: ['Sorrel Quist'],
    title: 'Fenders',
    why: '',
    hoursAgo: 60,
    leave: 'draft',
    lines: [p('MC-FE-30', 4)],
  },
]
