import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { ChooseSlip } from './choose/ChooseSlip.tsx'
import { DoSlip } from './choose/DoSlip.tsx'
import { Memory } from './choose/Memory.tsx'
import { PlaceProgress } from './choose/PlaceProgress.tsx'
import { CaneCount } from './count/CaneCount.tsx'
import { CountSlip } from './count/CountRow.tsx'
import { GetWoodIn } from './enter/GetWoodIn.tsx'
import { EntryList } from './EntryList.tsx'
import { ToolPanel } from './ToolPanel.tsx'
import type { BenchRoom } from './use-bench-room.ts'

/** The slip beside the sheet: what is known of the plant in the reading taken, and what can be told of it. */
export function BenchSlip({ room }: { readonly room: BenchRoom }) {
  const { gardenId, place, data, on, state, choice, training, recorder, canWrite, row } = room
  const { t } = useTranslation()
  const { reading } = state
  return (
    <div
      id="bench-slip"
      tabIndex={-1}
      className={`flex flex-col gap-5 outline-none ${reading === 'count' ? 'print:hidden' : ''}`}
    >
      <Slip label={t('wood.title')}>
        <p
          role="status"
          className="text-verdigris empty:hidden"
          data-walk={recorder.news?.kind === 'recorded' ? 'recorded' : undefined}
        >
          {recorder.news && t(`wood.${recorder.news.kind}`, { what: recorder.news.what })}
        </p>
        {reading === 'look' && <Looking room={room} />}
        {reading === 'choose' && room.settled === reading && (
          <ChooseSlip
            data={data}
            gardenId={gardenId}
            placeId={place.id}
            training={training}
            choosing={room.choosing}
            answer={room.answer}
            recorder={recorder}
            on={on}
            canWrite={canWrite}
            onCommit={room.commit}
            onAskAgain={() => training && room.send({ do: 'ask-again', plantId: training.plant.id })}
            onAsk={(question) => room.send({ do: 'ask', question })}
          />
        )}
        {reading === 'count' && (
          <CountSlip
            {...{ gardenId, place, row, recorder, on, canWrite }}
            plantId={choice.plant?.id ?? null}
            onPlant={room.goTo}
          />
        )}
        {reading === 'do' && <PlaceProgress data={data} on={on} />}
        {reading === 'do' &&
          (training ? (
            <DoSlip {...{ place, data, training, recorder, on, canWrite }} />
          ) : (
            <p className="text-slate">{t('choose.pickPlant')}</p>
          ))}
        {data.frames.length === 0 && (
          <Link to={`/g/${gardenId}/places/${place.id}/frame`}>
            {t('places.frame')}: {t('places.noFrame')}
          </Link>
        )}
      </Slip>
    </div>
  )
}

/** What stands: getting wood in, the tool or the part in hand, what came of earlier choices, the journal. */
function Looking({ room }: { readonly room: BenchRoom }) {
  const { gardenId, place, data, on, state, send, choice, training, recorder, canWrite, tools, photo } = room
  const { t } = useTranslation()
  return (
    <>
      {canWrite && training && tools.tool === 'choose' && (
        <GetWoodIn
          key={training.plant.id}
          {...{ gardenId, place, data, training, recorder, on }}
          under={state.under}
          onUnder={(under) => send({ do: 'grow-from', under })}
          onExpect={(paths) => send({ do: 'expect', paths })}
        />
      )}
      <ToolPanel
        {...{ gardenId, place, data, on, canWrite, recorder, tools, choice, photo, training }}
        onPlant={(plantId) => send({ do: 'pick-plant', plantId })}
      />
      {training?.system?.ofCount && tools.tool === 'choose' && (
        <CaneCount key={training.plant.id} {...{ place, training, on, canWrite, recorder }} />
      )}
      {training && tools.tool !== 'draw' && <Memory data={data} training={training} />}
      {tools.tool !== 'draw' && (
        <EntryList
          {...{ gardenId, data, place, on, canWrite, recorder }}
          pieceId={choice.piece?.id ?? null}
          plant={choice.plant}
        />
      )}
      <p className="text-slate">{t('wood.spring')}</p>
    </>
  )
}
