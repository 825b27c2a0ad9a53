import { IsISO8601, IsNumber, IsString, Length, Max, Min } from 'class-validator';
import { Nested } from '../quantity/nested';
import { Words } from '../quantity/parameter';
import { Machine } from '../machine/machine';
import { Material } from './material';
import { Tool } from './tool';

/** A cut worth keeping: what it was worked out for, and the values. Lengths mm, feed mm/min. */
export class Recipe {
  @IsString() @Length(1, 40) id!: string;
  @Words({ label: 'Name', help: 'How you will look for it.', min: 1, max: 120 })
  name!: string;
  @Nested(() => Tool) tool!: Tool;
  @Nested(() => Material) material!: Material;
  @Nested(() => Machine) machine!: Machine;
  @IsNumber() @Min(0.001) @Max(400) ae!: number;
  @IsNumber() @Min(0.001) @Max(400) ap!: number;
  @IsNumber() @Min(1) @Max(200000) rpm!: number;
  @IsNumber() @Min(0.01) @Max(200000) feed!: number;
  @IsNumber() @Min(0) @Max(1) boldness!: number;
  @Words({ label: 'Note', help: 'What you saw and heard.', min: 0, max: 1000 })
  note!: string;
  @IsISO8601() keptAt!: string;
}
