declare module '@zest/pose-model/*?url' {
  const url: string;
  export default url;
}
