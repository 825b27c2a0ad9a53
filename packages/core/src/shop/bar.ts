import { IsOptional, IsString, Length } from 'class-validator';
import { Choice, Parameter, Words } from '../quantity/parameter';

const SECTIONS = ['flat', 'round', 'tube', 'plate'] as const;
type Section = (typeof SECTIONS)[number];

const isFlat = ({ section }: Bar) => section === 'flat' || section === 'plate';
const isRound = ({ section }: Bar) => section === 'round' || section === 'tube';

/** Bar or plate the shop keeps, as it is bought: blanks are sawn off it. */
export class Bar {
  @IsString() @Length(1, 40) id!: string;
  @Words({ group: 'Bar', label: 'Name', help: 'As people in the shop call it.', min: 1, max: 80 })
  name!: string;
  @IsString() @Length(1, 40) materialId!: string;
  @Choice({
    group: 'Bar',
    label: 'Section',
    help: 'A flat bar, a round one and a tube are sawn across; a plate is sawn both ways.',
    choices: SECTIONS,
  })
  section!: Section;
  @Parameter({
    group: 'Bar',
    label: 'Width',
    help: 'Its wider side across.',
    unit: 'length',
    min: 0.5,
    max: 5000,
    matters: isFlat,
  })
  width!: number;
  @Parameter({
    group: 'Bar',
    label: 'Thickness',
    help: 'Its narrower side across.',
    unit: 'length',
    min: 0.1,
    max: 1000,
    matters: isFlat,
  })
  thickness!: number;
  @IsOptional()
  @Parameter({
    group: 'Bar',
    label: 'Radius of its edges',
    help: 'How far they are rounded along the bar.',
    unit: 'length',
    min: 0,
    max: 100,
    absent: 0,
    matters: ({ section }: Bar) => section === 'flat',
  })
  corner?: number;
  @Parameter({
    group: 'Bar',
    label: 'Diameter',
    help: 'Outside.',
    unit: 'length',
    min: 0.5,
    max: 5000,
    matters: isRound,
  })
  diameter!: number;
  @Parameter({
    group: 'Bar',
    label: 'Bore',
    help: 'Inside diameter.',
    unit: 'length',
    min: 0,
    max: 5000,
    matters: ({ section }: Bar) => section === 'tube',
  })
  bore!: number;
  @Parameter({
    group: 'Bar',
    label: 'Length',
    help: 'As it is bought.',
    unit: 'length',
    min: 10,
    max: 20000,
    step: 500,
  })
  length!: number;
  @IsOptional()
  @Parameter({
    group: 'Bar',
    label: 'At hand',
    help: 'How many of them the shop has; 0 where nobody counts them.',
    unit: 'count',
    absent: 0,
    min: 0,
    max: 100000,
    step: 1,
  })
  pieces?: number;
  @Parameter({
    group: 'Saw',
    label: 'Kerf',
    help: 'What a cut of the saw takes away.',
    unit: 'length',
    min: 0,
    max: 50,
    step: 0.5,
  })
  kerf!: number;
  @Parameter({
    group: 'Saw',
    label: 'More at a sawn end',
    help: 'How much longer than the part a blank is sawn at each end: saws cut neither square nor smooth.',
    unit: 'length',
    min: 0,
    max: 100,
    step: 0.5,
  })
  sawnMore!: number;
  @IsOptional()
  @Parameter({
    group: 'Price',
    label: 'Price of a kilogram',
    help: 'What the shop pays; 0 where it is not known, and no price is told.',
    unit: 'money',
    absent: 0,
    min: 0,
    max: 100000,
    step: 0.1,
  })
  pricePerKg?: number;
}

/** mm² of metal across a bar; of a plate the same, where it is sawn first. */
export function sectionArea({ section, width, thickness, corner = 0, diameter, bore }: Bar): number {
  const disc = (d: number) => (Math.PI * d * d) / 4;
  if (section === 'round') return disc(diameter);
  if (section === 'tube') return disc(diameter) - disc(bore);
  const radius = section === 'flat' ? Math.min(corner, width / 2, thickness / 2) : 0;
  return width * thickness - (4 - Math.PI) * radius * radius;
}
