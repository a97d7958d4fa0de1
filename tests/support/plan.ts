export { emptyDraft } from "@/features/shape/draft";
