import { IsDefined, IsObject, ValidateNested } from 'class-validator';
import { Type } from 'class-transformer';

/** A field that holds another checked object, and must be there; an empty list is no object. */
export function Nested(type: () => new () => object) {
  return (target: object, key: string) => {
    IsDefined()(target, key);
    IsObject()(target, key);
    ValidateNested()(target, key);
    Type(type)(target, key);
  };
}
