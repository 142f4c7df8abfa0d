import { expect, it } from "vitest";
import type { Species } from "@/api/client";
import { matching } from "./SpeciesPicker";

const species = [
  ["Boeseman's rainbowfish", "Melanotaenia boesemani"],
  ["Rainbow darter", "Etheostoma caeruleum"],
  ["Zebra danio", "Danio rerio"],
  ["American flagfish", "Jordanella floridae"],
].map(([common, scientific]) => ({ key: common, common, scientific }) as Species);
const names = (typed: string) => matching(species, typed).map(({ common }) => common);

it("finds by either name, in any order of words, beginnings first", () => {
  expect(names("rainbow")).toEqual(["Rainbow darter", "Boeseman's rainbowfish"]);
  expect(names("rerio")).toEqual(["Zebra danio"]);
  expect(names("boesemani melano")).toEqual(["Boeseman's rainbowfish"]);
  expect(names("dan")).toEqual(["Zebra danio", "American flagfish"]);
  expect(names("unicorn")).toEqual([]);
});
