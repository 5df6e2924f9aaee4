import { useGarden } from './documents.ts'

/** Whether the person may write in this garden; false until it is known. */
export function useCanWrite(gardenId: string): boolean {
  const garden = useGarden(gardenId)
  return garden !== undefined && garden.role !== 'viewer'
}
