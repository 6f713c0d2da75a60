/** A file taken into the server's bundle as it is. */
declare module 'raw:*' {
  const content: string
  export default content
}
