import Button from '@mui/material/Button'
import Snackbar from '@mui/material/Snackbar'
import SnackbarContent from '@mui/material/SnackbarContent'
import { ink } from '../theme'
import { useNotice } from './notices'

const INFO_MS = 8000

/** Shows the latest message. Problems stay until they are closed. */
export function NoticeHost() {
  const notice = useNotice((state) => state.notice)
  const close = () => useNotice.setState({ notice: undefined })
  if (!notice) return null
  const problem = notice.tone === 'problem'
  return (
    <Snackbar
      open
      key={notice.text}
      autoHideDuration={problem ? null : INFO_MS}
      onClose={(_, reason) => reason === 'timeout' && close()}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
    >
      <SnackbarContent
        role={problem ? 'alert' : 'status'}
        sx={{ bgcolor: ink.ink, color: ink.white, borderLeft: `4px solid ${problem ? ink.accent : ink.ink}`, maxWidth: 620, fontSize: 13 }}
        message={notice.text}
        action={
          <>
            {notice.action && (
              <Button
                sx={{ color: ink.white, textDecoration: 'underline', '&:hover': { bgcolor: ink.raisedInk } }}
                onClick={() => {
                  notice.action?.run()
                  close()
                }}
              >
                {notice.action.label}
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
