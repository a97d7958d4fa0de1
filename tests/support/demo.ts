export { populateDemo } from "@/demo/populate";
