/**
 * More of what Hallamere may buy, in the notation of the catalogue. A price step may be valid only for
 * some days about the demo's day: "10:27.90:-30:60" from thirty days ago until in sixty; an empty end is open.
 */
export const MORE_ITEMS: Record<string, string[]> = {
  'Corrigan Pumps': [
    'Ballast for ultraviolet lamp, 80 W|Water treatment|CP-BAL-80|H87|92.00|6:87.50|S|a', 'Lamp socket, four-pin, IP68|Water treatment|CP-LS-4|H87|12.40|10:11.10|S|a', 'Pressure gauge, 0 to 6 bar, bronze|Pump parts|CP-PG-6|H87|38.60||S|',
    'Pump strainer basket, 200 mm|Pump parts|CP-SB-200|H87|64.00|4:59.90:-20:40|S|', 'Gasket set, flange DN 80|Pump parts|CP-GK-80|SET|9.80|10:8.60|S|a', 'Butterfly valve, DN 100, lever|Pump parts|CP-BV-100|H87|143.00|4:134.00|S|a',
    'Check valve, DN 80, bronze|Pump parts|CP-CV-80|H87|118.50||S|a', 'Dosing pump, 12 litres an hour|Pump parts|CP-DP-12|H87|389.00||S|', 'Hose for dosing pump, 6 mm|Pump parts|CP-DH-6|MTR|3.20|25:2.75|S|', 'Vibration damper, M10|Pump parts|CP-VD-10|H87|7.15|20:6.30|S|',
    'Grease for bearings, marine, 400 g|Pump parts|CP-GR-400|H87|11.90|12:10.40|S|',
  ],
  'Brackwater Salts': [
    'Potassium iodide, 1 kg|Sea salt|BS-KI1|H87|84.00||S|', 'Strontium chloride, 2 kg|Sea salt|BS-SR2|H87|46.30||S|', 'Salt mixing drum, 200 litre|Sea salt|BS-DR200|H87|129.00||S|', 'Brine, ready mixed, 1,000 litre|Sea salt|BS-BR1000|H87|312.00|3:298.00:-60:30|S|a',
    'Trace element solution, 5 litre|Sea salt|BS-TE5|H87|58.70|4:55.20|S|', 'Hydrometer, sea water, glass|Instruments|BS-HY|H87|19.40||S|',
  ],
  'Northmole Water': [
    'Filter bag, 100 micron, size 2|Water treatment|NW-FB-100|H87|4.40|50:3.80|S|', 'Filter cartridge, 20 inch, 5 micron|Water treatment|NW-FC-20|H87|8.60|20:7.70|S|', 'Zeolite, 25 kg bag|Water treatment|NW-ZE-25|BG|33.50|10:31.00|S|',
    'Ozone hose clamp, stainless, 12 mm|Ozone parts|NW-OC-12|H87|2.90|25:2.40|S|', 'Ozone analyser cell|Ozone parts|NW-OA-1|H87|540.00||S|', 'Air dryer cartridge|Ozone parts|NW-AD-2|H87|76.00|4:71.00:-10:80|S|', 'Flow meter, 2 to 20 m³ an hour|Instruments|NW-FM-20|H87|268.00||S|',
    'pH electrode, sea water|Instruments|NW-PH-1|H87|112.00|4:104.00|S|', 'Turbidity standard, 500 ml|Reagents|NW-TS-5|H87|41.20||S|', 'Anthracite, 25 kg bag|Water treatment|NW-AN-25|BG|22.60|20:20.90|S|',
  ],
  'Harbour Waste': [
    'Skip, 7 m³, mixed waste|Waste removal|HW-SK-7|E48|285.00||S|a', 'Collection of spent filter sand, per tonne|Waste removal|HW-FS-T|TNE|96.00|5:89.00|S|a', 'Mercury lamp box, 60 litre|Waste removal|HW-LB-60|H87|24.00||S|a', 'Fish offal bin, weekly exchange|Waste removal|HW-OB-W|E48|38.50||S|a',
    'Chemical waste drum, 30 litre|Waste removal|HW-CD-30|H87|31.00|10:28.50|S|', 'Scrap metal collection|Waste removal|HW-SM-1|E48|0.00||S|',
  ],
  'Fennmark Laboratory Supply': [
    'Nitrite test, 100 determinations|Reagents|FL-NO2-100|BX|41.80|5:39.10|S|a', 'Copper test, 50 determinations|Reagents|FL-CU-50|BX|38.20||S|a', 'Nitrile gloves, large, 100|Reagents|FL-GLL-100|BX|8.95|20:7.80|S|', 'Nitrile gloves, small, 100|Reagents|FL-GLS-100|BX|8.95|20:7.80|S|',
    'Pipette tips, 1 ml, 1,000|Reagents|FL-PT-1000|BX|22.40|5:20.80|S|', 'Pipette, 0.1 to 1 ml|Instruments|FL-PI-1|H87|168.00||S|', 'Petri dishes, sterile, 20|Reagents|FL-PD-20|PK|6.90|10:6.10|S|', 'Marine agar, 500 g|Reagents|FL-MA-500|H87|87.60||S|',
    'Ethanol, denatured, 5 litre|Reagents|FL-ET-5|H87|34.20|4:31.60|S|', 'Formaldehyde solution, 4 %, 5 litre|Reagents|FL-FO-5|H87|42.90||S|', 'Sample bottles, 250 ml, 50|Reagents|FL-SB-250|BX|36.40|4:33.90|S|', 'Cover slips, 100|Reagents|FL-CS-100|BX|4.30|10:3.80|S|',
    'Magnifier lamp, bench|Instruments|FL-ML-1|H87|119.00||S|', 'Sieve set, 5 meshes|Instruments|FL-SS-5|SET|204.00||S|', 'Thermometer, calibrated, 0 to 50 °C|Instruments|FL-TH-50|H87|57.00|3:53.50:-40:20|S|', 'Calcium test, 100 determinations|Reagents|FL-CA-100|BX|39.70||S|a',
  ],
  'Coldreach Fish': [
    'Mackerel, frozen, whole, 20 kg|Frozen feed|CF-MK-20|BX|52.30|20:49.10|R|a', 'Prawns, frozen, in shell, 5 kg|Frozen feed|CF-PR-5|BX|44.80||R|a', 'Mysis shrimp, frozen, 1 kg|Frozen feed|CF-MY-1|H87|13.60|20:12.40|R|', 'Cockle meat, frozen, 5 kg|Frozen feed|CF-CO-5|BX|24.10||R|a',
    'Sand eel, frozen, 10 kg|Frozen feed|CF-SE-10|BX|36.90|10:34.80:-15:45|R|a', 'Vitamin tablets for fish eaters, 1,000|Frozen feed|CF-VT-1000|BX|61.00||R|', 'Seaweed sheets, dried, 100|Frozen feed|CF-SW-100|PK|18.20|10:16.70|R|', 'Jelly diet for turtles, 2 kg|Frozen feed|CF-JD-2|H87|27.40||R|',
    'Ice, flake, 500 kg|Frozen feed|CF-IC-500|E48|48.00||R|',
  ],
  'Silverquay Acrylics': [
    'Acrylic sheet, clear, 20 mm, 1 x 2 m|Acrylic and building|SQ-SH-20|H87|428.00||S|', 'Acrylic tube, 100 mm, 2 m|Acrylic and building|SQ-TU-100|H87|96.00||S|', 'Acrylic panel, 60 mm, to drawing, per m²|Acrylic and building|SQ-PN-60|MTK|1460.00||S|', 'Solvent cement, thin, 500 ml|Acrylic and building|SQ-SC-500|H87|21.30||S|',
    'Masking film, 1.2 m, 50 m|Acrylic and building|SQ-MF-50|RO|38.00|4:35.00|S|', 'Rock-work mortar, grey, 25 kg|Acrylic and building|SQ-RM-25|BG|29.90|20:27.40|S|', 'Pigment for rock-work, 1 kg|Acrylic and building|SQ-PG-1|H87|16.70||S|', 'Bonding tape, clear, 25 mm|Acrylic and building|SQ-BT-25|RO|12.10||S|',
    'Window gasket, EPDM, per metre|Acrylic and building|SQ-WG-1|MTR|5.40|50:4.80|S|',
  ],
  'Mistral Chandlery': [
    'Rope cleat, aluminium, 200 mm|Rope and deck|MC-CL-200|H87|14.80||S|', 'Marine grease cartridge, 400 g|Rope and deck|MC-GR-400|H87|9.60|12:8.50|S|', 'Bilge pump, 12 V|Rope and deck|MC-BP-12|H87|84.00||S|', 'Navigation light, port and starboard|Rope and deck|MC-NL-2|SET|72.00||S|', 'Anchor chain, 8 mm, per metre|Rope and deck|MC-AC-8|MTR|7.90|50:7.10|S|',
    'Flare set, coastal|Rope and deck|MC-FL-C|SET|96.00||S|', 'Deck paint, non-slip, 2.5 litre|Rope and deck|MC-DP-25|H87|48.50|4:45.00|S|', 'Impeller for cooling pump|Pump parts|MC-IM-1|H87|29.00||S|', 'Oil filter, main engine|Rope and deck|MC-OF-1|H87|18.40|6:16.90|S|', 'Engine oil, 15W-40, 20 litre|Rope and deck|MC-EO-20|H87|88.00||S|',
    'Life jacket, 150 N|Rope and deck|MC-LJ-150|H87|118.00|6:109.00|S|',
  ],
  'Tidewell Instruments': [
    'Current meter, hand-held|Instruments|TI-CM-1|H87|890.00||S|', 'Secchi disc, 30 cm|Instruments|TI-SD-30|H87|48.00||S|', 'Plankton counter slide|Instruments|TI-PS-1|H87|36.00|5:33.00|S|', 'Logger for temperature, 10 years|Instruments|TI-TL-10|H87|74.00|10:68.50|S|', 'Dissolved-oxygen probe, optical|Instruments|TI-DO-1|H87|512.00||S|',
    'Calibration of a conductivity probe|Instruments|TI-CAL-C|E48|140.00||S|',
  ],
  'Østervig Net and Rope': [
    'Net repair twine, 2 kg|Rope and deck|ON-TW-2|H87|310.00||S|', 'Cast net, 3 m|Rope and deck|ON-CN-3|H87|640.00||S|', 'Splice kit for winch rope|Rope and deck|ON-SP-1|SET|485.00||S|', 'Float line, 8 mm, 100 m|Rope and deck|ON-FL-8|RO|720.00|3:680.00|S|', 'Transport stretcher, seal|Rope and deck|ON-TS-1|H87|2150.00||S|',
  ],
  'Larkfield Veterinary': [
    'Microchips, 25|Veterinary|LV-MC-25|BX|98.00|4:92.00|S|', 'Syringes, 50 ml, 25|Veterinary|LV-SY-50|BX|19.60||S|', 'Gauze swabs, 10 cm, 500|Veterinary|LV-GS-500|BX|14.20|10:12.60|S|', 'Bandage, cohesive, 10 cm, 12|Veterinary|LV-BC-12|PK|16.80||S|', 'Thermometer, rectal, digital|Veterinary|LV-TH-1|H87|8.90||S|',
    'Fluid bags, saline, 1 litre, 10|Veterinary|LV-FS-10|BX|27.50|6:25.40:-25:35|R|', 'Iodine scrub, 5 litre|Veterinary|LV-IS-5|H87|39.00||S|', 'Scrubs, pair, washable|Veterinary|LV-SC-1|PR|24.00||S|', 'X-ray plate cover, 100|Veterinary|LV-XC-100|BX|12.70||S|',
  ],
  'Stonebridge Tools': [
    'Drill bits, cobalt, 1 to 10 mm|Tools|ST-DB-10|SET|64.00||S|', 'Cordless drill, 18 V|Tools|ST-CD-18|H87|219.00||S|', 'Safety glasses, clear|Tools|ST-SG-C|H87|4.60|20:3.90|S|', 'Ear defenders|Tools|ST-ED-1|H87|15.20|10:13.80|S|', 'Ladder, 3 m, fibreglass|Tools|ST-LA-3|H87|186.00||S|', 'Waterproof torch|Tools|ST-WT-1|H87|28.40|6:25.90|S|',
    'Silicone gun|Tools|ST-GU-1|H87|12.90||S|', 'Spirit level, 1 m|Tools|ST-SL-1|H87|34.00||S|', 'Multimeter|Tools|ST-MM-1|H87|78.00||S|', 'Cable reel, 25 m, IP44|Tools|ST-CR-25|H87|59.00||S|', 'Overalls, waterproof|Tools|ST-OW-1|H87|46.00|6:42.50|S|', 'Wellington boots, safety|Tools|ST-WB-1|PR|32.50|10:29.90|S|',
  ],
  'Kestrel Diving Works': ['Fins, pair, wide|Diving|KD-FI-1|PR|68.00||S|', 'Cylinder, 12 litre, steel|Diving|KD-CY-12|H87|248.00|4:236.00|S|', 'Weight belt with 8 kg|Diving|KD-WB-8|SET|54.00||S|', 'Dive computer|Diving|KD-DC-1|H87|389.00||S|', 'Under-suit, fleece|Diving|KD-US-1|H87|142.00||S|', 'Full-face mask service|Diving|KD-FM-S|E48|126.00||S|a'],
  'Quillon Signs': ['Sign, 120 x 80 cm, two languages|Signs|QS-128-2|H87|64.00|5:59.00|S|', 'Leaflets, A5, 1,000|Signs|QS-LF-1000|BX|92.00|3:84.00|R|', 'Window film lettering, per m²|Signs|QS-WF-1|MTK|48.00||S|', 'Tactile sign, braille|Signs|QS-TB-1|H87|79.00||S|', 'Banner, 3 x 1 m|Signs|QS-BN-3|H87|110.00||S|', 'Badges, staff, 50|Signs|QS-BD-50|BX|75.00||S|'],
  'Moorgate Paper': ['Copy paper, A4, 2,500 sheets|Office|MP-A4-25|BX|21.40|10:19.80|S|a', 'Toner, black, office printer|Office|MP-TN-K|H87|68.00|4:63.00|S|a', 'Envelopes, C5, 500|Office|MP-EN-C5|BX|17.90||S|', 'Notebooks, waterproof, 10|Office|MP-NW-10|PK|39.00||S|', 'Whiteboard markers, 10|Office|MP-WM-10|PK|9.80||S|', 'Box files, 10|Office|MP-BF-10|PK|14.60||S|'],
  'Whitsand Catering': ['Sandwich platter, ten people|Office|WC-SP-10|E48|62.00||R|', 'Coffee and tea, per person|Office|WC-CT-1|E48|3.20|20:2.80|R|', 'Training lunch, per person|Office|WC-TL-1|E48|9.50|10:8.90|R|'],
  'Elmhurst Microscopy': ['Microscope service, annual|Instruments|EM-SV-A|E48|420.00||S|a', 'Objective, 40x|Instruments|EM-OB-40|H87|318.00||S|', 'Immersion oil, 100 ml|Reagents|EM-IO-100|H87|24.50||S|', 'Camera adapter, C-mount|Instruments|EM-CA-1|H87|156.00||S|'],
  'Saltmarsh Electrical': ['Contactor, 25 A|Pump parts|SE-CT-25|H87|41.00|6:38.00|S|', 'Motor starter, 5.5 kW|Pump parts|SE-MS-55|H87|129.00||S|', 'Cable, rubber, 4 x 2.5, per metre|Tools|SE-RC-425|MTR|4.10|50:3.60|S|', 'Residual-current breaker, 40 A|Tools|SE-RB-40|H87|58.00||S|', 'LED luminaire, wet room|Tools|SE-LW-1|H87|74.00|10:68.00:-50:10|S|', 'Heat-shrink sleeves, set|Tools|SE-HS-1|SET|18.30||S|'],
}
