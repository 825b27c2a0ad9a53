import { IsString, Length, Matches } from 'class-validator';

/** Something asked or answered at an operation: "why 0.3 here?" It is no part of the job, and changes nothing of it. */
export class CommentEntry {
  /** Given by the device that says it. */
  @Matches(/^[0-9a-f-]{32,36}$/) id!: string;
  /** Of the operation. */
  @IsString() @Length(1, 40) operation!: string;
  @IsString() @Length(1, 1000) text!: string;
}

export interface KeptComment extends CommentEntry {
  who: string;
  /** ISO 8601. */
  at: string;
}
