import { ValidationError } from 'class-validator';
import { Finding, stop } from './finding';

/** Unknown fields are refused by name, never dropped. */
export const RULES = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } as const;

/** Field faults of class-validator as findings, each with its dotted path. */
export function fieldFindings(errors: ValidationError[], path = ''): Finding[] {
  return errors.flatMap((e) => {
    const field = path ? `${path}.${e.property}` : e.property;
    const own = Object.entries(e.constraints ?? {}).map(([rule, text]) =>
      rule === 'whitelistValidation'
        ? stop(
            'unknown-field',
            `There is a field “${field}” that nobody knows`,
            'Take it out, or open the file with the version that wrote it',
            { field },
          )
        : stop('bad-field', `${field}: ${text}`, 'Correct this value', { field }),
    );
    return [...own, ...fieldFindings(e.children ?? [], field)];
  });
}
