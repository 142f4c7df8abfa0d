export { FeedingPage } from "./FeedingPage";
