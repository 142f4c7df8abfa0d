export { BreedingPage } from "./BreedingPage";
export { RackPage } from "./RackPage";
export { VenturePage } from "./VenturePage";
