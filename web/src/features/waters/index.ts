export { WatersPage } from "./WatersPage";
