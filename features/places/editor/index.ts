export type { PlaceDraft } from "./draft";
export { PlaceEditor } from "./place-editor";
