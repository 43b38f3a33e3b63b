// The library that reads entities of a DXF says on the console what it misses, and takes the console when it is loaded: this is imported before it.
console.error = () => undefined;

export {};
