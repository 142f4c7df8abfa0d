export { RegisterPage } from "./RegisterPage";
