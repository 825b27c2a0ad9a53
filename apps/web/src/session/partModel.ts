import { Part, PartModel, modelOf } from '@tidypath/core';

const known = new WeakMap<Part, PartModel>();

/** The part's regions and levels, worked out once for each version of the part. */
export function partModel(part: Part): PartModel {
  let model = known.get(part);
  if (!model) {
    model = modelOf(part);
    known.set(part, model);
  }
  return model;
}
