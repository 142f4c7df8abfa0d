export { SystemsPage } from "./SystemsPage";
