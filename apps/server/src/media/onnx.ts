import { PbfWriter } from 'pbf';

/**
 * A neural network as ONNX bytes. Field numbers are those of the format's own `onnx.proto` (IR
 * version 8, operators of set 13).
 */

export interface OnnxNode {
  operator: string;
  inputs: string[];
  output: string;
  ints?: Record<string, number[]>;
  int?: Record<string, number>;
  text?: Record<string, string>;
}

export const ONNX_TYPES = { float: 1, float16: 10 } as const;

export interface OnnxTensor {
  name: string;
  shape: number[];
  type: keyof typeof ONNX_TYPES;
  /** Little-endian, by row. */
  bytes: Uint8Array;
}

export interface OnnxGraph {
  nodes: OnnxNode[];
  weights: OnnxTensor[];
  input: { name: string; shape: number[] };
  outputs: string[];
}

const ATTRIBUTES = { int: 2, text: 3, ints: 7 } as const;

function writeAttributes({ int = {}, text = {}, ints = {} }: OnnxNode, to: PbfWriter): void {
  const attribute = (name: string, type: number, value: (to: PbfWriter) => void) => {
    to.writeMessage(
      5,
      (_, inside) => {
        inside.writeStringField(1, name);
        value(inside);
        inside.writeVarintField(20, type);
      },
      null,
    );
  };
  for (const [name, one] of Object.entries(int))
    attribute(name, ATTRIBUTES.int, (inside) => inside.writeVarintField(3, one));
  for (const [name, one] of Object.entries(text))
    attribute(name, ATTRIBUTES.text, (inside) => inside.writeStringField(4, one));
  for (const [name, all] of Object.entries(ints))
    attribute(name, ATTRIBUTES.ints, (inside) => {
      for (const one of all) inside.writeVarintField(8, one);
    });
}

function writeNode(node: OnnxNode, to: PbfWriter): void {
  for (const input of node.inputs) to.writeStringField(1, input);
  to.writeStringField(2, node.output);
  to.writeStringField(4, node.operator);
  writeAttributes(node, to);
}

function writeTensor({ name, shape, type, bytes }: OnnxTensor, to: PbfWriter): void {
  to.writePackedVarint(1, shape);
  to.writeVarintField(2, ONNX_TYPES[type]);
  to.writeStringField(8, name);
  to.writeBytesField(9, bytes);
}

const writeShape = (shape: number[], to: PbfWriter) => {
  for (const side of shape)
    to.writeMessage(1, (value, dimension) => dimension.writeVarintField(1, value), side);
};

/** A value of floats; its shape where it is known. */
function writeValue({ name, shape }: { name: string; shape?: number[] }, to: PbfWriter): void {
  to.writeStringField(1, name);
  to.writeMessage(
    2,
    (_, type) =>
      type.writeMessage(
        1,
        (__, tensor) => {
          tensor.writeVarintField(1, ONNX_TYPES.float);
          if (shape) tensor.writeMessage(2, writeShape, shape);
        },
        null,
      ),
    null,
  );
}

function writeGraph({ nodes, weights, input, outputs }: OnnxGraph, to: PbfWriter): void {
  for (const node of nodes) to.writeMessage(1, writeNode, node);
  to.writeStringField(2, 'graph');
  for (const tensor of weights) to.writeMessage(5, writeTensor, tensor);
  to.writeMessage(11, writeValue, input);
  for (const name of outputs) to.writeMessage(12, writeValue, { name });
}

export function onnxBytes(graph: OnnxGraph): Uint8Array {
  const to = new PbfWriter();
  to.writeVarintField(1, 8);
  to.writeMessage(7, writeGraph, graph);
  to.writeMessage(
    8,
    (version, set) => {
      set.writeStringField(1, '');
      set.writeVarintField(2, version);
    },
    13,
  );
  return to.finish();
}
