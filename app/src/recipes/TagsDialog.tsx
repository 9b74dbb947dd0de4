import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { showProblem } from '../common/notices'
import { changeRecipe } from '../storage/recipes'
import type { ShownRecipe } from './shownRecipes'

/** Of one recipe. */
const MOST = 20
const LONGEST = 40

/** Asks for the words that a recipe is found by. */
export function TagsDialog({ one, onClose }: { readonly one: ShownRecipe; onClose(): void }) {
  const [text, setText] = useState(one.tags.join(', '))
  const take = () => {
    const words = text.split(',').map((word) => word.trim().slice(0, LONGEST))
    const tags = [...new Set(words.filter(Boolean))].slice(0, MOST)
    if (one.ownId !== undefined) changeRecipe(one.ownId, { tags }).catch((error: unknown) => showProblem(error, 'Changing the recipe'))
    onClose()
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="tags">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          take()
        }}
      >
        <DialogTitle id="tags">Words that find “{one.name}”</DialogTitle>
        <DialogContent sx={{ minWidth: 420 }}>
          <TextField
            autoFocus
            fullWidth
            margin="dense"
            label="Words"
            helperText="With commas between them, such as: Rain, warm, evening"
            value={text}
            onChange={(event) => setText(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 900 } }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Keep them
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
