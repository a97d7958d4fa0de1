export * from "./common";
export * from "./wire";
