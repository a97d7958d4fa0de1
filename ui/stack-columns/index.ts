export { type StackColumn, StackColumns } from "./stack-columns";
