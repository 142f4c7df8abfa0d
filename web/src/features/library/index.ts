export { LibraryPage } from "./LibraryPage";
