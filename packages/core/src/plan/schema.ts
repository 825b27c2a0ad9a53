import { jobSchema as schemaWith } from '../document/schema';
import { STORED_KINDS } from './documents';

/** JSON Schema of the job file, with every kind of operation there is. */
export const jobSchema = () => schemaWith(STORED_KINDS);
