/** Words for people in requests, by the same rules as in documents. */
import { instant, isDay, isVisible, mail, wrongInLine, wrongInLines } from '@waxwing/core/schema';
import { MaxLength, ValidateBy } from 'class-validator';

const rule = (name: string, validate: (value: unknown) => boolean, message: string): PropertyDecorator =>
  ValidateBy({ name, validator: { validate } }, { message });

const all =
  (...decorators: PropertyDecorator[]): PropertyDecorator =>
  (target, key) => {
    for (const one of decorators) one(target, key);
  };

/** Words of which `wrong` has nothing to say. */
const words = (most: number, wrong: (value: string) => string | null): PropertyDecorator =>
  all(
    MaxLength(most, { message: `must be at most ${most} characters` }),
    rule(
      'isWords',
      (value) => typeof value === 'string' && wrong(value) === null,
      'must be text without control characters',
    ),
  );

/** One line of words that may be empty. */
export const IsLine = (most: number): PropertyDecorator => words(most, wrongInLine);

/** Words that may run over several lines. */
export const IsLines = (most: number): PropertyDecorator => words(most, wrongInLines);

/** One line of which something can be seen: a name. */
export const IsName = (most: number): PropertyDecorator =>
  all(
    IsLine(most),
    rule('isName', (value) => typeof value === 'string' && isVisible(value), 'must not be empty'),
  );

/** An e-mail address. */
export const IsMail = (): PropertyDecorator =>
  rule('isMail', (value) => mail.safeParse(value).success, 'must be an e-mail address such as mail@example.org');

/** A time as this application writes it. */
export const IsTime = (): PropertyDecorator =>
  rule('isTime', (value) => instant.safeParse(value).success, 'must be a UTC time such as 2030-01-31T17:05:00.000Z');

/** A day that the calendar has. */
export const IsCalendarDay = (): PropertyDecorator => rule('isCalendarDay', isDay, 'must be a day such as 2030-01-31');
