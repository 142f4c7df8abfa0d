import { expect, it } from "vitest";
import { result } from "./Finding";

it.each([
  [{ total: 250, found: 250, short: 31, to_measure: 2 }, "250 systems: 31 fall short; 2 to measure or ask."],
  [{ total: 250, found: 250, short: null, to_measure: null }, "250 systems."],
  [{ total: 250, found: 12, short: 1, to_measure: 0 }, "12 of 250 systems: 1 falls short."],
  [{ total: 1, found: 1, short: 0, to_measure: 0 }, "1 system: none falls short."],
  [{ total: 5, found: 0, short: 0, to_measure: 0 }, "None of 5 systems has all of these words."],
])("%j reads %s", (part, words) => expect(result(part)).toBe(words));
