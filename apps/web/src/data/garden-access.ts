import { useGardenQuery } from './api.ts'

/** Whether the person may write in this garden; false until it is known. */
export function useCanWrite(gardenId: string): boolean {
  const { data } = useGardenQuery(gardenId)
  return data !== undefined && data.role !== 'viewer'
}
