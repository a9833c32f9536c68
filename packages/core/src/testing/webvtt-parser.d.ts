declare module 'webvtt-parser' {
  const webvtt: { WebVTTParser: new () => { parse(text: string, mode: string): unknown } };
  export default webvtt;
}
