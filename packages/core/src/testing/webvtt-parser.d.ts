declare module 'webvtt-parser' {
  export class WebVTTParser {
    parse(text: string, mode: string): unknown;
  }
}
