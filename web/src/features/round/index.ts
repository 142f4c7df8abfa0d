export { AwayPage } from "./AwayPage";
export { StockPage } from "./StockPage";
export { RoundPage } from "./RoundPage";
