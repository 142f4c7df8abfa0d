export { LogPage } from "./LogPage";
