/**
 * A supplier in a row: e-mail local part (null: none known), terms in days, lead days, freight and what it is free
 * from.
 */
export type SupplierRow = [
  name: string,
  number: string,
  town: string,
  mail: string | null,
  currency: string,
  terms: number,
  lead: number,
  freight: string | null,
  freeFrom: string | null,
  standing?: string,
  warning?: string,
]

/** Suppliers that are bought from now and then. */
export const MORE_SUPPLIERS: SupplierRow[] = [
  ['Alderquay Glass', 'S-1021', 'Alderquay', 'orders', 'EUR', 30, 14, '45.00', '900'],
  ['Birkholm Pumpworks', 'S-1022', 'Birkholm', 'ordre', 'DKK', 30, 12, '220.00', '5000'],
  ['Cantle Workwear', 'S-1023', 'Cantle', 'orders', 'EUR', 30, 4, '7.50', '120'],
  ['Drumlin Timber', 'S-1024', 'Drumlin', 'yard', 'EUR', 14, 3, '28.00', '400'],
  ['Estling Cables', 'S-1025', 'Estling', 'orders', 'EUR', 30, 4, '9.50', '200'],
  ['Fallowgate Garden', 'S-1026', 'Fallowgate', 'office', 'EUR', 14, 6, null, null],
  ['Gannet Freight Cold', 'S-1027', 'Gannet Head', 'desk', 'EUR', 14, 2, '55.00', null],
  ['Hollin Hygiene', 'S-1028', 'Hollin', 'orders', 'EUR', 30, 3, '6.90', '90'],
  ['Inverlow Instruments', 'S-1029', 'Inverlow', 'sales', 'GBP', 30, 18, '26.00', null],
  ['Juniper Print', 'S-1030', 'Hallamere', 'studio', 'EUR', 14, 5, null, null],
  ['Kittiwake Safety', 'S-1031', 'Kittiwake Bay', 'orders', 'EUR', 30, 4, '8.00', '150'],
  [
    'Lowmarsh Ice',
    'S-1032',
    'Lowmarsh',
    'orders',
    'EUR',
    14,
    1,
    '12.00',
    '80',
    'active',
    'No delivery after five in the afternoon.',
  ],
  ['Merrowby Plastics', 'S-1033', 'Merrowby', 'orders', 'EUR', 30, 9, '24.00', '500'],
  ['Nettlefold Paints', 'S-1034', 'Nettlefold', 'orders', 'EUR', 30, 5, '14.00', '250'],
  ['Ottermouth Boatyard', 'S-1035', 'Ottermouth', 'yard', 'EUR', 30, 21, null, null],
  ['Pinder Refrigeration', 'S-1036', 'Pinder', 'service', 'EUR', 30, 6, null, null],
  ['Ravensea Optics', 'S-1037', 'Ravensea', 'orders', 'GBP', 30, 15, '19.00', null],
  ['Sallow Furniture', 'S-1038', 'Sallow', 'orders', 'EUR', 30, 20, '60.00', '1200'],
  ['Thornwick Fasteners', 'S-1039', 'Thornwick', 'orders', 'EUR', 30, 2, '5.50', '75'],
  ['Thornwick Fastening Co', 'S-1044', 'Thornwick', 'orders', 'EUR', 14, 3, null, null],
  ['Umberley Toys', 'S-1040', 'Umberley', 'shop', 'EUR', 14, 4, '5.00', '60'],
  ['Vellacott Gases', 'S-1041', 'Vellacott', 'orders', 'EUR', 30, 3, '18.00', null],
  ['Westering Software', 'S-1042', 'Westering', null, 'EUR', 30, 1, null, null],
  ['Yarrowdale Feeds', 'S-1043', 'Yarrowdale', 'orders', 'EUR', 14, 5, '32.00', '450'],
]

/** What they have, by their name. */
export const THEIR_ITEMS: Record<string, string[]> = {
  'Alderquay Glass': [
    'Laminated glass, 12 mm, per m²|Acrylic and building|AG-LG-12|MTK|236.00|4:219.00|S|',
    'Glass edge seal, clear, 5 m|Acrylic and building|AG-ES-5|RO|14.80|10:13.20|S|',
    'Suction lifter, double|Tools|AG-SL-2|H87|48.00||S|',
  ],
  'Birkholm Pumpworks': [
    'Circulation pump, 5.5 kW, sea water|Pump parts|BP-C55|H87|21400.00||S|',
    'Impeller, bronze, 180 mm|Pump parts|BP-IM-180|H87|1480.00|3:1390.00|S|',
    'Shaft seal, 28 mm, silicon carbide|Pump parts|BP-SS-28|H87|365.00|6:338.00|S|',
    'Wear ring, 200 mm|Pump parts|BP-WR-200|H87|290.00||S|',
  ],
  'Cantle Workwear': [
    'Wellington boots, safety, pair|Office|CW-WB|PR|38.50|10:35.90|S|',
    'Waders, chest high, neoprene|Office|CW-CW|H87|124.00||S|',
    'Rain jacket, staff|Office|CW-RJ|H87|46.00|20:41.50|S|',
    'Thermal gloves, waterproof, pair|Office|CW-TG|PR|17.20|12:15.60|S|',
  ],
  'Drumlin Timber': [
    'Oak board, 28 x 150 mm, 3 m|Acrylic and building|DT-OB-28|H87|41.00|10:38.20|S|',
    'Marine plywood, 18 mm, 2.5 x 1.2 m|Acrylic and building|DT-MP-18|H87|96.00|5:89.00|S|',
    'Decking screws, stainless, 250|Tools|DT-DS-250|BX|22.40|4:20.10|S|',
  ],
  'Estling Cables': [
    'Cable, three cores, 2.5 mm², 100 m|Instruments|EC-3C-25|RO|118.00|3:109.00|S|',
    'Cable gland, M20, IP68, 10|Instruments|EC-G20|BX|16.50|5:14.90|S|',
    'Junction box, sea-water proof|Instruments|EC-JB|H87|33.80|6:30.90|S|',
    'Cable ties, black, 300 mm, 500|Tools|EC-CT-300|BX|19.00|4:17.20|S|',
  ],
  'Fallowgate Garden': [
    'Dune grass, pot of nine|Acrylic and building|FG-DG-9|SET|27.00|10:24.00|R|',
    'Gravel, washed, 8 to 16 mm, tonne|Acrylic and building|FG-GR-8|TNE|64.00|5:58.00|S|',
  ],
  'Gannet Freight Cold': [
    'Refrigerated run, Coldreach to Hallamere|Frozen feed|GF-RUN|E48|240.00||S|',
    'Dry ice, 25 kg|Frozen feed|GF-DI-25|BX|58.00|4:53.00|S|',
  ],
  'Hollin Hygiene': [
    'Hand soap, 5 litre|Office|HH-HS-5|H87|11.60|6:10.40|S|',
    'Paper towels, 3,000|Office|HH-PT|BX|24.90|10:22.40|S|',
    'Boot-bath disinfectant, 10 litre|Veterinary|HH-BB-10|H87|62.00|4:57.50|S|',
    'Floor squeegee, 75 cm|Tools|HH-FS-75|H87|18.90||S|',
  ],
  'Inverlow Instruments': [
    'Dissolved-oxygen probe, optical|Instruments|II-DO|H87|512.00||S|',
    'pH electrode, sea water|Instruments|II-PH|H87|138.00|4:129.00|S|',
    'Salinity meter, hand-held|Instruments|II-SM|H87|346.00||S|',
    'Calibration solution, pH set|Reagents|II-CAL|SET|31.00|6:28.40|S|',
  ],
  'Juniper Print': [
    'Quiz sheets, pad of 100|Signs|JP-QZ|H87|14.00|10:11.90|R|',
    'Roll-up banner, 85 x 200 cm|Signs|JP-RB|H87|78.00|3:71.00|S|',
    'Tickets, numbered, 1,000|Signs|JP-TK|BX|52.00|5:46.00|S|',
  ],
  'Kittiwake Safety': [
    'Life jacket, 150 N, crew|Rope and deck|KS-LJ|H87|164.00|4:152.00|S|',
    'First-aid refill, boat|Veterinary|KS-FA|SET|44.00||S|',
    'Ear defenders|Office|KS-ED|H87|21.00|10:18.70|S|',
    'Eye-wash bottle, 500 ml|Office|KS-EW|H87|13.50|6:12.10|S|',
  ],
  'Lowmarsh Ice': ['Flake ice, 200 kg|Frozen feed|LI-FI-200|H87|46.00|3:42.00|S|'],
  'Merrowby Plastics': [
    'Larval rearing tank, 300 litre|Acrylic and building|MP-LT-300|H87|284.00|4:262.00|S|',
    'Egg-crate panel, white|Acrylic and building|MP-EC|H87|19.40|12:17.10|S|',
    'Pipe, PVC, 63 mm, 3 m|Pump parts|MP-PV-63|H87|21.80|10:19.60|S|',
    'Elbow, PVC, 63 mm|Pump parts|MP-EL-63|H87|4.90|25:4.20|S|',
    'Ball valve, PVC, 63 mm|Pump parts|MP-BV-63|H87|26.70|6:24.30|S|',
  ],
  'Nettlefold Paints': [
    'Antifouling, copper free, 5 litre|Rope and deck|NP-AF-5|H87|158.00|4:149.00|S|',
    'Epoxy primer, 5 litre|Rope and deck|NP-EP-5|H87|136.00||S|',
    'Masking tape, 50 mm, 12|Tools|NP-MT-50|BX|29.00||S|',
  ],
  'Ottermouth Boatyard': [
    'Hull wash and inspection|Rope and deck|OB-HW|E48|680.00||S|',
    'Propeller polish|Rope and deck|OB-PP|E48|240.00||S|',
  ],
  'Pinder Refrigeration': [
    'Service of a chiller, yearly|Water treatment|PR-SC|E48|420.00||S|',
    'Refrigerant leak test|Water treatment|PR-LT|E48|185.00||S|',
    'Fan motor, chiller|Pump parts|PR-FM|H87|212.00||S|',
  ],
  'Ravensea Optics': [
    'Underwater viewing port, 200 mm|Instruments|RO-VP-200|H87|390.00||S|',
    'Endoscope camera, 5 m|Instruments|RO-EN-5|H87|268.00||S|',
  ],
  'Sallow Furniture': [
    'Bench, visitors, larch, 180 cm|Office|SF-BE-180|H87|346.00|4:318.00|S|',
    'Desk, height adjustable|Office|SF-DK|H87|412.00|5:385.00|S|',
  ],
  'Thornwick Fasteners': [
    'Hexagon bolts, A4, M10 x 60, 100|Tools|TF-HB-1060|BX|58.00|5:52.00|S|',
    'Washers, A4, M10, 200|Tools|TF-WA-10|BX|17.40|5:15.30|S|',
    'Hose clamps, A4, 60 to 80 mm, 10|Tools|TF-HC-80|BX|24.60|6:22.10|S|',
    'Threaded rod, A4, M12, 1 m|Tools|TF-TR-12|H87|11.20|10:9.90|S|',
  ],
  'Umberley Toys': [
    'Puzzle box for octopuses, small|Office|UT-PB-S|H87|16.00|6:14.20|S|',
    'Floating ring for seals|Office|UT-FR|H87|28.00||S|',
    'Plush seal, 20 cm, 24|Office|UT-PS-24|BX|132.00|5:121.00|S|',
  ],
  'Vellacott Gases': [
    'Oxygen, cylinder of 50 litre|Ozone parts|VG-O2-50|H87|64.00|6:59.00|S|',
    'Carbon dioxide, cylinder of 20 kg|Water treatment|VG-CO2-20|H87|48.00||S|',
    'Pressure regulator, oxygen|Ozone parts|VG-PR-O2|H87|97.00||S|',
  ],
  'Westering Software': ['Licence, feeding records, one year|Office|WS-FR-1|E48|960.00||S|'],
  'Yarrowdale Feeds': [
    'Krill, Pacific, frozen, 10 kg|Frozen feed|YF-KR-10|BX|71.50|10:66.00|R|',
    'Herring, whole, frozen, 10 kg|Frozen feed|YF-HE-10|BX|29.90|20:27.20|R|',
    'Spirulina flakes, 5 kg|Frozen feed|YF-SP-5|BG|88.00|3:82.00|R|',
    'Vitamin premix for fish, 2 kg|Veterinary|YF-VP-2|BG|54.00|4:50.50|R|',
  ],
}

/** Things that are as good, by part: another supplier's, and the one that they are kept beside. */
export const SAME_AS: Readonly<Record<string, string>> = {
  '88-025': 'CP-QS-25',
  'YF-KR-10': 'CF-KR-10',
  'NP-AF-5': 'MC-AF-5',
  'LV-NG-100': 'FL-GLM-100',
}

/** Retired items, with what follows them. */
export const SUCCEEDED: Readonly<Record<string, string>> = {
  'CP-UV-75': 'CP-UV-80A',
  'FL-NH4-50': 'FL-NH4-100',
}
/** What has been retired, in the notation of the catalogue. */
export const RETIRED_ITEMS: Record<string, string[]> = {
  'Corrigan Pumps': ['Ultraviolet lamp 75 W|Water treatment|CP-UV-75|H87|129.00||S|'],
  'Fennmark Laboratory Supply': ['Ammonia test, 50 determinations|Reagents|FL-NH4-50|BX|31.00||S|'],
}
