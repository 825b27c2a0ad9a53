import { IsObject, IsString, Length } from 'class-validator';

/** One thing that holds the work. `params` belong to the kind; its own class validates them. */
export class Holding {
  @IsString() @Length(1, 40) id!: string;
  @IsString() @Length(1, 40) kind!: string;
  @IsString() @Length(1, 80) name!: string;
  @IsObject() params!: Record<string, unknown>;
}
