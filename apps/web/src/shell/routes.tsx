import { createBrowserRouter } from 'react-router'
import type { AppStore } from '../data/store.ts'
import type { Desk } from '../data/desk.ts'
import { Broken } from './Broken.tsx'
import { Gate } from './Gate.tsx'

/** Each screen is a file of its own that is fetched when it is first opened. */
export function makeRouter(store: AppStore, desk: Desk) {
  const gardenRoom = async () => {
    const [{ GardenRoom }, { startSync }] = await Promise.all([
      import('./GardenRoom.tsx'),
      import('../data/start.ts'),
    ])
    startSync(store, desk)
    return { Component: GardenRoom }
  }
  return createBrowserRouter([
    {
      errorElement: <Broken />,
      hydrateFallbackElement: <></>,
      children: [
        { path: '/', element: <Gate /> },
        {
          path: '/sign-in',
          lazy: async () => ({ Component: (await import('../features/account/SignIn.tsx')).SignIn }),
        },
        {
          path: '/no-garden',
          lazy: async () => ({ Component: (await import('../features/account/NoGarden.tsx')).NoGarden }),
        },
        {
          path: '/join',
          lazy: async () => ({ Component: (await import('../features/account/Join.tsx')).Join }),
        },
        {
          path: '/recover',
          lazy: async () => ({ Component: (await import('../features/account/Recover.tsx')).Recover }),
        },
        {
          path: '/new-password',
          lazy: async () => ({
            Component: (await import('../features/account/NewPassword.tsx')).NewPassword,
          }),
        },
        {
          path: '/g/:gardenId',
          lazy: gardenRoom,
          children: [
            { index: true, lazy: places },
            { path: 'places', lazy: places },
            {
              path: 'places/:placeId/measures',
              lazy: async () => ({
                Component: (await import('../features/places/PlaceBench.tsx')).PlaceBench,
              }),
            },
            {
              path: 'places/:placeId/frame',
              lazy: async () => ({
                Component: (await import('../features/frame/FrameBench.tsx')).FrameBench,
              }),
            },
            {
              path: 'places/:placeId/frame/:frameId',
              lazy: async () => ({
                Component: (await import('../features/frame/FrameBench.tsx')).FrameBench,
              }),
            },
            {
              path: 'places/:placeId/frame/:frameId/sheet',
              lazy: async () => ({ Component: (await import('../features/sheet/Sheet.tsx')).Sheet }),
            },
            {
              path: 'places/:placeId/frame/:frameId/build',
              lazy: async () => ({ Component: (await import('../features/build/Build.tsx')).Build }),
            },
            {
              path: 'places/:placeId/variants',
              lazy: async () => ({ Component: (await import('../features/frame/Variants.tsx')).Variants }),
            },
            {
              path: 'stores',
              lazy: async () => ({ Component: (await import('../features/stores/Stores.tsx')).Stores }),
            },
            {
              path: 'places/:placeId/wood',
              lazy: async () => ({ Component: (await import('../features/wood/WoodBench.tsx')).WoodBench }),
            },
            {
              path: 'round',
              lazy: async () => ({ Component: (await import('../features/round/Round.tsx')).Round }),
            },
            {
              path: 'people',
              lazy: async () => ({ Component: (await import('../features/account/People.tsx')).People }),
            },
          ],
        },
        { path: '*', element: <Gate /> },
      ],
    },
  ])
}

const places = async () => ({ Component: (await import('../features/places/Places.tsx')).Places })
