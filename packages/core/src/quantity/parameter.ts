import { IsIn, IsBoolean, IsNumber, IsInt, IsString, Length, Max, Min, ValidateIf } from 'class-validator';

/** What a stored number is measured in; lengths in mm, feeds in mm/min, speeds in m/min, angles in degrees, time in minutes, forces in kN. */
export type ParameterUnit =
  | 'length'
  | 'angle'
  | 'feed'
  | 'rpm'
  | 'count'
  | 'share'
  | 'percent'
  | 'speed'
  | 'power'
  | 'torque'
  | 'acceleration'
  | 'pressure'
  | 'force'
  | 'seconds'
  | 'minutes'
  | 'money'
  | 'number';

/** What a person needs to know about one value of an operation, a tool, a machine, a material or a holder. */
export interface ParameterInfo {
  label: string;
  /** One plain sentence: what it does. */
  help: string;
  unit?: ParameterUnit;
  min?: number;
  max?: number;
  choices?: readonly string[];
  /** Words shown for the choices, where they differ from what is stored. */
  words?: Readonly<Record<string, string>>;
  /** Heading it stands under in a form. */
  group?: string;
  /** What it is taken for where it is not given. */
  absent?: number | string | boolean;
  /** It names a feature of the part that means one of these. */
  features?: readonly string[];
  /** Step of the + and - buttons, in the stored unit. */
  step?: number;
  /** False where the value has no effect with the other values as they are; such a value is neither shown nor checked. */
  matters?: (owner: never) => boolean;
  /** Checked even where it does not matter and is not shown: everywhere, or where this says so. */
  always?: boolean | ((owner: never) => boolean);
}

const REGISTER = Symbol('parameters');

type Owner = { [REGISTER]?: Record<string, ParameterInfo> };

function register(target: object, key: string, info: ParameterInfo): void {
  const owner = target as Owner;
  owner[REGISTER] = { ...owner[REGISTER], [key]: info };
  const { matters, always } = info;
  const isChecked = typeof always === 'function' ? always : matters;
  if (isChecked && always !== true) ValidateIf((instance) => isChecked(instance as never))(target, key);
}

/** A number with unit and range: validated by class-validator, described for the screen. Lengths in mm, angles in degrees. */
export function Parameter(info: ParameterInfo & { unit: ParameterUnit; min: number; max: number }) {
  return (target: object, key: string) => {
    register(target, key, info);
    if (info.unit === 'count') IsInt()(target, key);
    else IsNumber({ allowNaN: false, allowInfinity: false })(target, key);
    Min(info.min)(target, key);
    Max(info.max)(target, key);
  };
}

/** One of a few named choices. */
export function Choice(info: ParameterInfo & { choices: readonly string[] }) {
  return (target: object, key: string) => {
    register(target, key, info);
    IsIn([...info.choices])(target, key);
  };
}

/** On or off. */
export function Toggle(info: ParameterInfo) {
  return (target: object, key: string) => {
    register(target, key, info);
    IsBoolean()(target, key);
  };
}

/** A few words. */
export function Words(info: ParameterInfo & { min: number; max: number }) {
  return (target: object, key: string) => {
    register(target, key, info);
    IsString()(target, key);
    Length(info.min, info.max)(target, key);
  };
}

/** A feature of the part, by its id; none where it is empty. */
export function FeatureChoice(info: ParameterInfo & { features: readonly string[] }) {
  return (target: object, key: string) => {
    register(target, key, info);
    IsString()(target, key);
    Length(0, 40)(target, key);
  };
}

/** The described values of a parameter class, by name. */
export function parametersOf(cls: new () => object): Record<string, ParameterInfo> {
  return (cls.prototype as Owner)[REGISTER] ?? {};
}
