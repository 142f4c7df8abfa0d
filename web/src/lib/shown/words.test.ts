import { expect, it } from "vitest";

import { midSentence } from "./words";

it.each([
  ["Total ammonia", "total ammonia"],
  ["KH of the mix", "KH of the mix"],
  ["CO2 at dusk", "CO2 at dusk"],
  ["pH that is likely", "pH that is likely"],
  ["", ""],
])("%s within a sentence is %s", (label, told) => expect(midSentence(label)).toBe(told));
