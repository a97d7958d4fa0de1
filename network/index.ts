export { isPrivate, ownName, privateAddresses } from "./addresses";
export { forgetAuthority, hasAuthority } from "./authority";
export { Network, type NetworkOptions, type NetworkState } from "./network";
