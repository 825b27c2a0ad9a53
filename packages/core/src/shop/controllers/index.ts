import { Controller } from '../controller';
import { hobby } from './hobby';
import { isoMill } from './iso-mill';
import { sheetCutter } from './sheet-cutter';

/** Every dialect; adding one means one data file and one line here. */
export const CONTROLLERS: Controller[] = [isoMill, hobby, sheetCutter];

export const controllerById = (id: string): Controller | undefined => CONTROLLERS.find((c) => c.id === id);
