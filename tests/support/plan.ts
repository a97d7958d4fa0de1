export { emptyDraft } from "@/features/shape/editor/draft";
