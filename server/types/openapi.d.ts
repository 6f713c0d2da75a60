/** Not read by the compiler: the type it would infer is larger than all of the code. */
declare module '#docs/openapi.json' {
  const document: { readonly openapi: '3.1.0'; readonly [part: string]: unknown }
  export default document
}
