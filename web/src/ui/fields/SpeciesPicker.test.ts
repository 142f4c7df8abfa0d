import { expect, it } from "vitest";
import type { Species } from "@/api/client";
import { matching } from "./SpeciesPicker";

const species = [
  ["Boeseman's rainbowfish", "Melanotaenia boesemani"],
  ["Rainbow darter", "Etheostoma caeruleum"],
  ["Zebra danio", "Danio rerio", "Striped danio"],
  ["American flagfish", "Jordanella floridae"],
].map(([common, scientific, ...aliases]) => ({ key: common, common, scientific, aliases }) as Species);
const names = (typed: string) => matching(species, typed).map(({ common }) => common);

it("finds by any name, in any order of words, beginnings first", () => {
  expect(names("rainbow")).toEqual(["Rainbow darter", "Boeseman's rainbowfish"]);
  expect(names("rerio")).toEqual(["Zebra danio"]);
  expect(names("boesemani melano")).toEqual(["Boeseman's rainbowfish"]);
  expect(names("dan")).toEqual(["Zebra danio", "American flagfish"]);
  expect(names("striped")).toEqual(["Zebra danio"]);
  expect(names("unicorn")).toEqual([]);
});
