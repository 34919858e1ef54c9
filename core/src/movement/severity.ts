/** The order in which faults are named, in every list and sentence: the dangerous first. */
import { SEVERITIES, type Severity } from './vocabulary.js';

export const bySeverity = (a: { severity: Severity }, b: { severity: Severity }): number =>
  SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity);
