export { QuarantinePage } from "./QuarantinePage";
