export { AwayPage } from "./AwayPage";
export { RoundPage } from "./RoundPage";
