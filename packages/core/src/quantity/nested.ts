import 'reflect-metadata';
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsDefined, IsObject, ValidateNested } from 'class-validator';

type Classes = Parameters<typeof Type>[1];

/** A checked object or list in a described class. */
interface Inner {
  key: string;
  type: () => new () => object;
  /** Entries of a list; undefined for an object. */
  most?: number;
}

const INNER = new WeakMap<object, Inner[]>();

function note(target: object, inner: Inner): void {
  INNER.set(target, [...(INNER.get(target) ?? []), inner]);
}

/** What a described class holds that is described itself, and what it has from the class it extends. */
export function innerOf(type: new () => object): Inner[] {
  const found: Inner[] = [];
  for (let at = type.prototype as object | null; at; at = Object.getPrototypeOf(at) as object | null)
    found.push(...(INNER.get(at) ?? []));
  return found;
}

/** A field that holds another checked object, and must be there; an empty list is no object. */
export function Nested(type: () => new () => object) {
  return (target: object, key: string) => {
    note(target, { key, type });
    IsDefined()(target, key);
    IsObject()(target, key);
    ValidateNested()(target, key);
    Type(type)(target, key);
  };
}

/** A field that holds one of several checked objects, told apart by their `type`, or by what else they call it. */
export function OneOf(
  subTypes: NonNullable<NonNullable<Classes>['discriminator']>['subTypes'],
  property: 'type' | 'kind' = 'type',
) {
  return (target: object, key: string) => {
    // Their lists are bounded alike.
    if (property === 'kind') note(target, { key, type: () => subTypes[0].value as new () => object });
    Type(() => Object, { discriminator: { property, subTypes }, keepDiscriminatorProperty: true })(target, key);
    ValidateNested()(target, key);
    IsObject()(target, key);
    IsDefined()(target, key);
  };
}

/** A list of checked objects, of so many entries. */
export function ListOf(type: () => new () => object, most: number, least = 0) {
  return (target: object, key: string) => {
    note(target, { key, type, most });
    Type(type)(target, key);
    ValidateNested({ each: true })(target, key);
    ArrayMaxSize(most)(target, key);
    if (least > 0) ArrayMinSize(least)(target, key);
    IsArray()(target, key);
  };
}
