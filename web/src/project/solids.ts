/** Pictures of parts in space: read from the library, turned so that their front looks forward, in millimetres. */
import { Box3, Euler, Group, Matrix4, Mesh, MeshStandardMaterial, Quaternion, Vector3 } from 'three'
import type { Object3D } from 'three'

/** A model as it is in its file: glTF is in metres and made into millimetres, STL is in millimetres. */
async function readFile(name: string): Promise<Object3D> {
  const url = `/api/library/files/${encodeURIComponent(name)}`
  const answer = await fetch(url)
  if (!answer.ok) throw new Error(`${name} is not in the library any more.`)
  const content = await answer.arrayBuffer()
  if (name.endsWith('.stl')) {
    const { STLLoader } = await import('three/examples/jsm/loaders/STLLoader.js')
    const geometry = new STLLoader().parse(content)
    geometry.computeVertexNormals() // those of the file are often left out
    return new Mesh(geometry, new MeshStandardMaterial({ color: '#C9CCD1' }))
  }
  const { GLTFLoader } = await import('three/examples/jsm/loaders/GLTFLoader.js')
  const { scene } = await new GLTFLoader().parseAsync(content, '')
  scene.scale.multiplyScalar(1000)
  return scene
}

const read = new Map<string, Promise<Object3D>>()

function fileOf(name: string): Promise<Object3D> {
  const held = read.get(name) ?? readFile(name)
  read.set(name, held)
  held.catch(() => read.delete(name))
  return held
}

function vectorOf(axis: string): Vector3 {
  const way = axis.startsWith('-') ? -1 : 1
  return new Vector3(
    ...(['x', 'y', 'z'].map((a) => (axis.endsWith(a) ? way : 0)) as [number, number, number]),
  )
}

/** The turn that brings the front of a model to +z and its top to +y; a top along the front is put right. */
export function turnOf(front: string, up: string): Quaternion {
  const z = vectorOf(front)
  let y = vectorOf(up)
  if (Math.abs(y.dot(z)) > 0.5) y = vectorOf(front.endsWith('y') ? '+z' : '+y')
  const x = new Vector3().crossVectors(y, z)
  return new Quaternion().setFromRotationMatrix(new Matrix4().makeBasis(x, y, z)).invert()
}

export interface Model {
  /** In mm, its middle across and down in the origin, its back at z = 0. */
  group: Group
  /** Width, height and depth, mm. */
  size: [number, number, number]
}

/** A model turned and set on its mounting surface. */
export async function modelOf(name: string, front: string, up: string): Promise<Model> {
  const inner = (await fileOf(name)).clone()
  const turned = new Group()
  turned.add(inner)
  turned.setRotationFromEuler(new Euler().setFromQuaternion(turnOf(front, up)))
  turned.updateMatrixWorld(true)
  const box = new Box3().setFromObject(turned)
  const size = box.getSize(new Vector3())
  const middle = box.getCenter(new Vector3())
  turned.position.set(-middle.x, -middle.y, -box.min.z)
  const group = new Group()
  group.add(turned)
  return { group, size: [size.x, size.y, size.z] }
}
