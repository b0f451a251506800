/** Stands in for packages that only mark a module as belonging to the server. */
export {};
