import type { Pairing } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { QRCodeSVG } from 'qrcode.react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { failureMessage } from '../../../shared/api';
import { Section } from '../../../shared/Section';
import { pairingApi } from './pairingApi';
import { useCatchUp } from './useCatchUp';

/** Asked again so often while phones may be there, ms. */
const LOOK_AGAIN_MS = 3000;
const QR_PX = 168;

/** Lets phones and tablets see the day at the table, and throws them out. */
export function PhonesAtTable() {
  const { jobId = '' } = useParams();
  const [isOn, setIsOn] = useState(false);
  const { data: pairing } = pairingApi.useReadPairingQuery(jobId, {
    pollingInterval: isOn ? LOOK_AGAIN_MS : 0,
  });
  if (pairing && pairing.on !== isOn) setIsOn(pairing.on);
  const [open, opening] = pairingApi.useOpenPairingMutation();
  const [close] = pairingApi.useClosePairingMutation();
  useCatchUp(pairing?.revision);
  return (
    <Box sx={{ '@media print': { display: 'none' } }}>
      <Section
        title="Phones at the table"
        action={
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button size="small" disabled={opening.isLoading} onClick={() => void open(jobId)}>
              {pairing?.on ? 'Let another in' : 'Let a phone in'}
            </Button>
            {pairing?.on && (
              <Button size="small" onClick={() => void close()}>
                Switch off
              </Button>
            )}
          </Box>
        }
      >
        {opening.error && <Alert severity="error">{failureMessage(opening.error)}</Alert>}
        {pairing?.on ? (
          <Open pairing={pairing} />
        ) : (
          <Typography sx={{ color: 'text.secondary', maxWidth: 640 }}>
            Off. Switched on, this machine opens an address for the phones and tablets of your network: with a
            code they show the day step by step and tick, and nothing else. What is ticked there appears here.
          </Typography>
        )}
      </Section>
    </Box>
  );
}

function Open({ pairing: { addresses, code, devices } }: { pairing: Pairing }) {
  const [throwOut] = pairingApi.useThrowOutMutation();
  const [address] = addresses;
  if (!address)
    return (
      <Alert severity="warning" sx={{ maxWidth: 640 }}>
        This machine is in no network: connect it, switch this off and on again.
      </Alert>
    );
  return (
    <>
      {code && (
        <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap', alignItems: 'center', mb: 1.5 }}>
          <Box sx={{ p: 1.5, bgcolor: 'common.white', lineHeight: 0 }}>
            <QRCodeSVG
              value={`${address}#${code.words}`}
              size={QR_PX}
              title="Code that a phone reads with its camera"
            />
          </Box>
          <div>
            <Typography>Read it with the camera of the phone, or open there</Typography>
            <Box className="number" sx={{ my: 0.5 }}>
              {addresses.map((own) => (
                <div key={own}>{own}</div>
              ))}
            </Box>
            <Typography>and type</Typography>
            <Box data-testid="pairing-words" sx={{ fontSize: '1.5rem', fontWeight: 650, my: 0.5 }}>
              {code.words.split('-').join(' ')}
            </Box>
            <Typography sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
              Once, until {new Date(code.expiresAt).toLocaleTimeString([], { timeStyle: 'short' })}.
            </Typography>
          </div>
        </Box>
      )}
      {devices.length === 0 ? (
        <Typography sx={{ color: 'text.secondary' }}>No phone is paired yet.</Typography>
      ) : (
        <Box component="ul" aria-label="Paired" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {devices.map(({ id, name, seenAt }) => (
            <Box component="li" key={id} sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
              <strong>{name}</strong>
              <span>last seen {new Date(seenAt).toLocaleTimeString([], { timeStyle: 'medium' })}</span>
              <Button size="small" aria-label={`Throw out ${name}`} onClick={() => void throwOut(id)}>
                Throw out
              </Button>
            </Box>
          ))}
        </Box>
      )}
      <Typography sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        What goes between this machine and a phone is not encrypted: use a network whose people you trust.
        When the server stops, all phones are out.
      </Typography>
    </>
  );
}
