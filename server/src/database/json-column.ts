/** A column that holds JSON. One row that cannot be read must not take others with it: it comes out undefined, and is set apart by who reads it. */
import { Column, type ValueTransformer } from 'typeorm';

const json: ValueTransformer = {
  to: (value: unknown) => (value === null || value === undefined ? value : JSON.stringify(value)),
  from: (text: unknown) => (typeof text === 'string' ? parsed(text) : text),
};

/** What some JSON text holds; undefined when it is damaged. */
export function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

export const JsonColumn = (options: { nullable?: boolean } = {}): PropertyDecorator =>
  Column('text', { ...options, transformer: json });

/** Whether every column of a row could be read. */
export const isWhole = (row: object): boolean => Object.values(row).every((value) => value !== undefined);
