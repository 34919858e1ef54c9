/** Where the starter library is: its movement files, and the checked form that the build keeps beside the code. */
import { fileURLToPath } from 'node:url';

export const STARTER_FOLDER = fileURLToPath(new URL('../movements', import.meta.url));
export const STARTER_CHECKED = fileURLToPath(new URL('../dist/starter.json', import.meta.url));
export const FIGURES_CHECKED = fileURLToPath(new URL('../dist/figures.json', import.meta.url));
export const PROVEN_CHECKED = fileURLToPath(new URL('../dist/proven.json', import.meta.url));
export const FIGURES = fileURLToPath(new URL('../figures', import.meta.url));
export const STILLS = fileURLToPath(new URL('../stills', import.meta.url));
/** The skins of the figure. */
export const SKINS = {
  broad: fileURLToPath(new URL('../../body/baked/broad.bin', import.meta.url)),
  narrow: fileURLToPath(new URL('../../body/baked/narrow.bin', import.meta.url)),
} as const;
export const HOUSE_RULES = fileURLToPath(new URL('../house-rules.yaml', import.meta.url));
export const CONDITIONS = fileURLToPath(new URL('../conditions.yaml', import.meta.url));
export const CAUSES = fileURLToPath(new URL('../causes.yaml', import.meta.url));
export const DEMAND_LEVELS = fileURLToPath(new URL('../demands.yaml', import.meta.url));
export const EXCEPTIONS = fileURLToPath(new URL('../exceptions.yaml', import.meta.url));
export const READINGS = fileURLToPath(new URL('../readings.yaml', import.meta.url));
export const FAULT_KINDS = fileURLToPath(new URL('../fault-kinds.yaml', import.meta.url));
