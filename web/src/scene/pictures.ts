/** Where the pictures of the open project are fetched; scenes name them by id only. */
import { createContext } from 'react'

export const PictureBase = createContext('')
