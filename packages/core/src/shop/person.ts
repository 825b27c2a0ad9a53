import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsString, Length } from 'class-validator';

/** What somebody does in the shop: a learner's programs are approved before they run; an approver also says who is who. */
export const ROLES = ['learner', 'programmer', 'approver'] as const;
export type Role = (typeof ROLES)[number];

/** Somebody of the shop, as entered. */
export class PersonEntry {
  @IsString() @Length(1, 60) name!: string;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(ROLES.length) @IsIn([...ROLES], { each: true }) roles!: Role[];
}

/** Somebody of the shop. */
export interface Person extends PersonEntry {
  id: string;
  /** Whether they are asked for a PIN on a device. */
  hasPin: boolean;
}

/** A PIN: four to six digits. */
export const PIN = /^\d{4,6}$/;
