import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Snackbar from '@mui/material/Snackbar'
import SnackbarContent from '@mui/material/SnackbarContent'
import { ink } from '../theme'
import { useNotices, type Notice } from './notices'

const INFO_MS = 8000

/** Shows the latest messages at the foot of the page. */
export function NoticeHost() {
  const { info, problem } = useNotices()
  return (
    <Box sx={{ position: 'fixed', left: 24, bottom: 24, zIndex: 'snackbar', display: 'grid', justifyItems: 'start', gap: 2 }}>
      {info && <Message key={info.text} notice={info} />}
      {problem && <Message key={problem.text} notice={problem} />}
    </Box>
  )
}

/** Problems stay until they are closed. */
function Message({ notice: { text, tone, action } }: { readonly notice: Notice }) {
  const problem = tone === 'problem'
  const close = () => useNotices.setState({ [tone]: undefined })
  return (
    <Snackbar
      open
      autoHideDuration={problem ? null : INFO_MS}
      onClose={(_, reason) => reason === 'timeout' && close()}
      sx={{ position: 'static' }}
    >
      <SnackbarContent
        role={problem ? 'alert' : 'status'}
        sx={{ bgcolor: ink.ink, color: ink.white, borderLeft: `4px solid ${problem ? ink.accent : ink.ink}`, maxWidth: 620, fontSize: 13 }}
        message={text}
        action={
          <>
            {action && (
              <Button
                sx={{ color: ink.white, textDecoration: 'underline', '&:hover': { bgcolor: ink.raisedInk } }}
                onClick={() => {
                  action.run()
                  close()
                }}
              >
                {action.label}
              </Button>
            )}
            <Button sx={{ color: ink.white, '&:hover': { bgcolor: ink.raisedInk } }} onClick={close}>
              Close
            </Button>
          </>
        }
      />
    </Snackbar>
  )
}
