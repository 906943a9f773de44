import { readDrawerCsv, type Drawer } from '@zemble/core';

/** What lies in the drawers of the valley station's workshop. */
const TABLE = `kind,value,tolerance,rating,technology,count,place
resistor,10,5%,0.25W,carbon film,20,A1
resistor,22,5%,0.25W,carbon film,18,A1
resistor,47,5%,0.5W,carbon film,12,A1
resistor,100,5%,0.25W,metal film,40,A2
resistor,220,5%,0.25W,metal film,25,A2
resistor,330,5%,0.25W,metal film,14,A2
resistor,470,5%,0.25W,metal film,30,A2
resistor,680,5%,0.25W,metal film,9,A2
resistor,820,5%,0.25W,metal film,6,A2
resistor,1k,1%,0.25W,metal film,60,A3
resistor,1k5,5%,0.25W,metal film,22,A3
resistor,2k2,5%,0.25W,metal film,35,A3
resistor,3k3,5%,0.25W,metal film,16,A3
resistor,4k7,1%,0.25W,metal film,44,A3
resistor,6k8,5%,0.25W,metal film,11,A3
resistor,10k,1%,0.25W,metal film,80,A4
resistor,12k,5%,0.25W,metal film,7,A4
resistor,15k,5%,0.25W,metal film,19,A4
resistor,22k,1%,0.25W,metal film,31,A4
resistor,27k,5%,0.25W,metal film,3,A4
resistor,33k,5%,0.25W,metal film,15,A4
resistor,47k,1%,0.25W,metal film,52,A4
resistor,68k,5%,0.25W,metal film,13,A5
resistor,100k,1%,0.25W,metal film,66,A5
resistor,150k,5%,0.25W,metal film,8,A5
resistor,220k,5%,0.25W,metal film,24,A5
resistor,330k,5%,0.25W,metal film,5,A5
resistor,470k,5%,0.25W,metal film,17,A5
resistor,1M,5%,0.25W,metal film,28,A5
resistor,4M7,5%,0.25W,carbon film,6,A6
resistor,10M,5%,0.25W,carbon film,9,A6
resistor,12M,5%,0.25W,carbon film,2,A6
resistor,100,5%,5W,wirewound,4,A7
resistor,1k,5%,2W,wirewound,3,A7
capacitor,22p,5%,100V,ceramic,20,B1
capacitor,47p,5%,100V,ceramic,15,B1
capacitor,100p,5%,100V,ceramic,24,B1
capacitor,220p,5%,100V,ceramic,11,B1
capacitor,1n,10%,100V,film,18,B2
capacitor,2n2,10%,100V,film,9,B2
capacitor,4n7,10%,100V,film,12,B2
capacitor,10n,10%,100V,film,33,B2
capacitor,22n,10%,100V,film,14,B3
capacitor,47n,10%,100V,film,21,B3
capacitor,100n,10%,63V,film,48,B3
capacitor,220n,10%,63V,film,10,B3
capacitor,470n,10%,63V,film,7,B3
capacitor,1u,10%,63V,film,6,B4
capacitor,4u7,20%,50V,electrolytic,9,B5
capacitor,10u,20%,35V,electrolytic,16,B5
capacitor,22u,20%,35V,electrolytic,12,B5
capacitor,47u,20%,25V,electrolytic,8,B5
capacitor,100u,20%,25V,electrolytic,14,B6
capacitor,220u,20%,25V,electrolytic,5,B6
capacitor,470u,20%,35V,electrolytic,4,B6
capacitor,1000u,20%,35V,electrolytic,2,B6
potentiometer,10k,20%,,,4,D1
potentiometer,100k,20%,,,3,D1
potentiometer,1M,20%,,,2,D1
diode,1N4148,,,,30,C1
diode,1N4007,,,,22,C1
led,red,,,,12,C1
bjt,2N3904,,,,15,C2
bjt,2N3906,,,,11,C2
opamp,TL072,,,,6,C3
opamp,NE5532,,,,3,C3
timer555,555,,,,4,C3
`;

const { items, problems } = readDrawerCsv(TABLE);
if (problems[0]) throw new Error(problems[0].message);

export const DEMO_DRAWER: Drawer = items;
