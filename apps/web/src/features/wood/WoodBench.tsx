import type { Place } from '@klados/contract'
import { useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usePlaces } from '../../data/documents.ts'
import { todayHere } from '../../data/dates.ts'
import { useAppSelector } from '../../data/store.ts'
import { useHistory } from '../../data/use-history.ts'
import { Loading } from '../../ui/Message.tsx'
import { NotHere } from '../../ui/NotHere.tsx'
import { BenchSheet } from './BenchSheet.tsx'
import { BenchSlip } from './BenchSlip.tsx'
import { useWoodBench } from './use-bench.ts'
import { useBenchRoom } from './use-bench-room.ts'
import type { BenchProps } from './use-bench-room.ts'

/** The wood bench of a place; `?on=` opens it on a day, `?tie=` at a tie, `?plant=` at a plant. */
export function WoodBench() {
  const { gardenId, placeId } = useParams() as { gardenId: string; placeId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const [search] = useSearchParams()
  const place = places?.find((one) => one.id === placeId)
  const status = useAppSelector((state) => state.journal.status)
  const history = useHistory(placeId)
  if (!places || status === 'empty' || status === 'reading') return <Loading>{t('app.loading')}</Loading>
  if (!place) return <NotHere gardenId={gardenId} />
  if (history === 'coming' && status === 'ready') return <Loading>{t('app.loading')}</Loading>
  return (
    <>
      {history === 'away' && (
        <p role="status" className="mb-2 text-[0.8125rem] text-slate">
          {t('wood.yearsAway')}
        </p>
      )}
      <OnADay key={`${place.id} ${search}`} gardenId={gardenId} place={place} asked={search.get('on')} />
    </>
  )
}

function OnADay({ asked, ...at }: { gardenId: string; place: Place; asked: string | null }) {
  const today = todayHere()
  const [on, setOn] = useState(asked ?? today)
  return <Loaded {...at} on={on} onDay={setOn} today={today} />
}

function Loaded(props: Omit<BenchProps, 'data'>) {
  const { gardenId, place, on } = props
  const data = useWoodBench(gardenId, place, on)
  const { t } = useTranslation()
  return data ? <Bench {...props} data={data} /> : <Loading>{t('app.loading')}</Loading>
}

/**
 * The wood bench: the plant on its frame, any day of its life, in readings: what stands, what to choose, what to do. All
 * of it goes into the journal.
 */
function Bench(props: BenchProps) {
  const room = useBenchRoom(props)
  return (
    <div className="grid min-h-0 flex-1 gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_350px]">
      <BenchSheet room={room} />
      <BenchSlip room={room} />
    </div>
  )
}
