import { z } from 'zod';
import { ONNX_TYPES, type OnnxGraph, type OnnxNode, type OnnxTensor } from './onnx.ts';

/**
 * The pose model comes as a TensorFlow.js graph, which runs in browsers. Here it is put into the terms
 * of a native runtime, as far as its four heads; rows of channels become planes.
 */

const attributes = z.object({
  fused_ops: z.object({ list: z.object({ s: z.array(z.string()).default([]) }) }).optional(),
  strides: z.object({ list: z.object({ i: z.array(z.coerce.number()) }) }).optional(),
  padding: z.object({ s: z.string() }).optional(),
});
const graphModel = z.object({
  modelTopology: z.object({
    node: z.array(
      z.object({
        name: z.string(),
        op: z.string(),
        input: z.array(z.string()).default([]),
        attr: attributes.default({}),
      }),
    ),
  }),
  weightsManifest: z.array(
    z.object({
      weights: z.array(
        z.object({
          name: z.string(),
          shape: z.array(z.number()),
          dtype: z.enum(['float32', 'int32']),
          quantization: z.object({ dtype: z.literal('float16') }).optional(),
        }),
      ),
    }),
  ),
});
type GraphNode = z.infer<typeof graphModel>['modelTopology']['node'][number];

/** The picture, -1 to 1, before the first layer. */
const INPUT = 'StatefulPartitionedCall/sub_1';
/** What the layers say: see `readPose`. */
export const HEADS = {
  /** Times its weight by how near the middle it is. */
  centre: 'StatefulPartitionedCall/truediv_2',
  fromCentre: 'StatefulPartitionedCall/kpt_regress_0/conv2d_6/BiasAdd',
  score: 'StatefulPartitionedCall/Sigmoid',
  offset: 'StatefulPartitionedCall/kpt_offset_0/conv2d_7/BiasAdd',
} as const;

/** Height, width, in, out become out, in, height, width; of one filter a channel; of a plane. */
const PLANES = { filter: [3, 2, 0, 1], each: [2, 3, 0, 1], plane: [2, 0, 1] };

const text = (base64: string) => Buffer.from(base64, 'base64').toString('latin1');

/** Weights as they lie in the file, one after the other. */
function weightsIn(
  manifest: z.infer<typeof graphModel>['weightsManifest'],
  bytes: Uint8Array,
): Map<string, OnnxTensor> {
  let at = 0;
  return new Map(
    manifest
      .flatMap(({ weights }) => weights)
      .map(({ name, shape, quantization }) => {
        const size = shape.reduce((product, side) => product * side, 1) * (quantization ? 2 : 4);
        at += size;
        const tensor = { name, shape, type: quantization ? 'float16' : 'float' } as const;
        return [name, { ...tensor, bytes: bytes.subarray(at - size, at) }];
      }),
  );
}

/** Nodes before those they feed, back from `names` as far as the picture. */
function leadingTo(names: readonly string[], nodes: readonly GraphNode[]): GraphNode[] {
  const byName = new Map(nodes.map((node) => [node.name, node]));
  const found = new Map<string, GraphNode>();
  const visit = (name: string) => {
    const node = byName.get(name);
    if (!node || name === INPUT || found.has(name)) return;
    node.input.forEach(visit);
    found.set(name, node);
  };
  names.forEach(visit);
  return [...found.values()];
}

class Planes {
  readonly nodes: OnnxNode[] = [];
  readonly used = new Map<string, OnnxTensor>();
  readonly #weights: ReadonlyMap<string, OnnxTensor>;

  constructor(weights: ReadonlyMap<string, OnnxTensor>) {
    this.#weights = weights;
  }

  /** A weight as floats, its sides in the order of planes; a value that is none as it is. */
  #weight(name: string, order: number[] | null): string {
    const weight = this.#weights.get(name);
    if (!weight) return name;
    this.used.set(name, weight);
    const floats = {
      operator: 'Cast',
      inputs: [name],
      output: `${name}/floats`,
      int: { to: ONNX_TYPES.float },
    };
    this.nodes.push(floats);
    if (!order) return floats.output;
    const turned = `${name}/planes`;
    this.nodes.push({
      ...{ operator: 'Transpose', inputs: [floats.output], output: turned },
      ints: { perm: order },
    });
    return turned;
  }

  #convolution({ name, op, input, attr }: GraphNode): void {
    const [from = '', filter = '', bias] = input;
    const shape = this.#weights.get(filter)?.shape ?? [];
    const isEach = op.includes('Depthwise');
    const fused = (attr.fused_ops?.list.s ?? []).map(text);
    const last = fused.find((one) => one.startsWith('Relu'));
    this.nodes.push({
      operator: 'Conv',
      inputs: [
        from,
        this.#weight(filter, isEach ? PLANES.each : PLANES.filter),
        ...(bias === undefined ? [] : [this.#weight(bias, null)]),
      ],
      output: last ? `${name}/linear` : name,
      ints: {
        strides: (attr.strides?.list.i ?? []).slice(1, 3),
        kernel_shape: shape.slice(0, 2),
      },
      int: isEach ? { group: shape[2] ?? 1 } : {},
      text: { auto_pad: text(attr.padding?.s ?? '') === 'SAME' ? 'SAME_UPPER' : 'VALID' },
    });
    if (!last) return;
    const linear = `${name}/linear`;
    this.nodes.push(
      last === 'Relu6'
        ? { operator: 'Clip', inputs: [linear, 'zero', 'six'], output: name }
        : { operator: 'Relu', inputs: [linear], output: name },
    );
  }

  /** @throws Error at an operation that is not known here */
  add(node: GraphNode): void {
    const { name, op, input } = node;
    const [first = '', second = ''] = input;
    if (op.includes('Conv2')) this.#convolution(node);
    else if (op === 'AddV2') this.nodes.push({ operator: 'Add', inputs: input, output: name });
    else if (op === 'Sigmoid')
      this.nodes.push({ operator: 'Sigmoid', inputs: input, output: name });
    else if (op === 'Mul')
      this.nodes.push({
        operator: 'Mul',
        inputs: [first, this.#weight(second, PLANES.plane)],
        output: name,
      });
    else if (op === 'ResizeBilinear')
      this.nodes.push({
        ...{ operator: 'Resize', inputs: [first, '', 'twice'], output: name },
        text: { mode: 'linear', coordinate_transformation_mode: 'half_pixel' },
      });
    else if (op !== 'Const') throw new Error(`Pose model: no counterpart of ${op}.`);
  }
}

const constant = (name: string, values: number[], shape: number[]): OnnxTensor => ({
  ...{ name, shape, type: 'float' },
  bytes: new Uint8Array(Float32Array.from(values).buffer),
});

/**
 * @param description the model's JSON, @param weights its binary file
 * @param side pixels a side the model looks at
 * @throws ZodError, Error when it is not such a model
 */
export function poseGraph(description: unknown, weights: Uint8Array, side: number): OnnxGraph {
  const { modelTopology, weightsManifest } = graphModel.parse(description);
  const outputs = Object.values(HEADS);
  const planes = new Planes(weightsIn(weightsManifest, weights));
  for (const node of leadingTo(outputs, modelTopology.node)) planes.add(node);
  return {
    nodes: planes.nodes,
    weights: [
      ...planes.used.values(),
      constant('zero', [0], []),
      constant('six', [6], []),
      constant('twice', [1, 1, 2, 2], [4]),
    ],
    input: { name: INPUT, shape: [1, 3, side, side] },
    outputs,
  };
}
