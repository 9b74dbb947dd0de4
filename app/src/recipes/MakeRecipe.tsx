import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { recipeFrom, type Scene } from '@welkinar/core'
import { useState } from 'react'
import { showProblem } from '../common/notices'
import { keepRecipes } from '../storage/recipes'

interface MakeRecipeProps {
  readonly scene: Scene
  onClose(): void
  onMade(id: number): void
}

/** Asks for the name of a recipe, and what goes along. */
export function MakeRecipe({ scene, onClose, onMade }: MakeRecipeProps) {
  const [name, setName] = useState(scene.name.slice(0, 120))
  const [withPhoto, setWithPhoto] = useState(false)
  const make = () => {
    const recipe = recipeFrom(scene, { name: name.trim(), withPhoto })
    keepRecipes([recipe])
      .then(([id]) => {
        onClose()
        if (id !== undefined) onMade(id)
      })
      .catch((error: unknown) => showProblem(error, 'Keeping the recipe'))
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="make-recipe">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim()) make()
        }}
      >
        <DialogTitle id="make-recipe">A recipe of this picture</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 3, minWidth: 360 }}>
          <TextField
            autoFocus
            margin="dense"
            label="Name"
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <FormControlLabel
            control={<Checkbox checked={withPhoto} onChange={(_, checked) => setWithPhoto(checked)} />}
            label="With the tones and the crop of the photo"
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!name.trim()}>
            Keep the recipe
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
