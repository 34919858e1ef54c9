/** From where people are signed in, and how another device comes in. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Device } from '@waxwing/core/door';
import { Laptop, Tablet } from 'lucide-react';
import { useState } from 'react';

import { devicesQuery, doorQuery, networkQuery } from '../api/door';
import { call } from '../api/http';
import { Dialog } from '../shell/dialog';
import { Await, Wrong } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { asCode, Marked } from '../words/marked';
import { say } from '../words/say';
import { useMay } from './use-door';

export function Devices() {
  const [pairing, pair] = useState(false);
  const { train: trains } = useMay();
  const tablet = useQuery(doorQuery).data?.tablet === true;
  const network = useQuery(networkQuery).data;
  return (
    <section aria-labelledby="devices">
      <h2 id="devices" className="mb-1">
        {say.door.devices}
      </h2>
      {!network ? (
        <p className="min-h-14" />
      ) : network.addresses.length === 0 ? (
        <p className="quiet mb-2">
          <Marked words={say.door.onlyThisComputerComesIn} as={asCode} />
        </p>
      ) : (
        <>
          <p className="mb-1">
            <Marked
              words={say.door.otherDevicesOfYourNetwork(network.addresses[0] ?? '')}
              as={(address) => (
                <a className="link font-semibold" href={address}>
                  {address}
                </a>
              )}
            />
          </p>
          {network.fingerprint && (
            <p className="quiet mb-2 text-sm">
              <Marked
                words={say.door.onEachFirst(network.addresses[0] ?? '', network.fingerprint)}
                as={(fingerprint) => <span className="font-mono break-all">{fingerprint}</span>}
              />
            </p>
          )}
          {trains && (
            <button type="button" className="btn mb-3" onClick={() => pair(true)}>
              {say.door.pairATablet}
            </button>
          )}
        </>
      )}
      <Await query={useQuery(devicesQuery)} what={say.door.theDevices}>
        {(devices) =>
          devices.length === 0 ? (
            <p className="quiet">{say.door.nobodyIsSignedInFrom}</p>
          ) : (
            <List devices={devices} mayEnd={!tablet} />
          )
        }
      </Await>
      {pairing && <PairDialog onClose={() => pair(false)} />}
    </section>
  );
}

function List({ devices, mayEnd }: { devices: readonly Device[]; mayEnd: boolean }) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: devicesQuery.queryKey });
  const shutOut = useMutation({
    mutationFn: (id: string) => call('DELETE /door/devices/{id}', { id }),
    onSuccess: again,
  });
  const endOthers = useMutation({ mutationFn: () => call('DELETE /door/devices'), onSuccess: again });
  return (
    <>
      <ul className="ruled border-base-content border-t-2">
        {devices.map(({ id, name, accountName, tablet, lastUsedAt, current }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            {tablet ? <Tablet aria-hidden size={20} /> : <Laptop aria-hidden size={20} />}
            <span className="min-w-0 flex-1 font-semibold">
              {name} <span className="quiet font-normal">· {accountName}</span>
            </span>
            <span className="quiet">
              {current ? say.door.thisOne : say.door.lastUsed(dayWords(lastUsedAt), timeWords(lastUsedAt))}
            </span>
            {mayEnd && !current && (
              <button
                type="button"
                className="btn btn-sm"
                aria-label={say.door.shutOut(name)}
                disabled={shutOut.isPending}
                onClick={() => shutOut.mutate(id)}
              >
                {say.door.shutOutNow}
              </button>
            )}
          </li>
        ))}
      </ul>
      {mayEnd && devices.length > 2 && (
        <button type="button" className="btn mt-2" disabled={endOthers.isPending} onClick={() => endOthers.mutate()}>
          {say.door.signMeOutEverywhereElse}
        </button>
      )}
      <Wrong error={shutOut.error ?? endOthers.error} />
    </>
  );
}

function PairDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const offer = useQuery({
    queryKey: ['pairing'],
    queryFn: () => call('POST /door/pairings'),
    staleTime: Infinity,
    gcTime: 0,
  });
  const close = () => {
    onClose();
    void queries.invalidateQueries({ queryKey: devicesQuery.queryKey });
  };
  return (
    <Dialog title={say.door.pairATablet} onClose={close}>
      <Await query={offer} what={say.door.aKey}>
        {({ code, address, endsAt }) => (
          <div className="grid items-center gap-6 sm:grid-cols-[16rem_1fr]">
            <img
              className="w-full bg-white"
              alt={say.door.codeWithTheAddressTo}
              src={`data:image/svg+xml;utf8,${encodeURIComponent(code)}`}
            />
            <div className="space-y-3">
              <p>{say.door.pointTheTabletsCameraAt}</p>
              <p className="bg-base-200 p-2 font-mono text-sm break-all select-all">{address}</p>
              <p className="quiet text-base">{say.door.goodOnceUntilThenClose(timeWords(endsAt))}</p>
            </div>
          </div>
        )}
      </Await>
    </Dialog>
  );
}
