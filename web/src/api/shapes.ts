/** Short names for the shapes of answers, as the server declares them. */
import type { components } from './schema'

export type Schemas = components['schemas']
export type SnagAct = Schemas['SnagAct']
export type WireRow = Schemas['WireRowValue']
export type DeviceRow = Schemas['DeviceRowValue']
export type SnagRow = Schemas['SnagRowValue']
export type SheetFacts = Schemas['SheetFacts']
export type DeviceCard = Schemas['DeviceCard']
export type Offer = Schemas['OfferValue']
export type Candidate = Schemas['CandidateValue']
export type Found = Schemas['Found']
export type SheetLine = Schemas['SheetLine']
export type PageLine = Schemas['PageLine']
export type BusLine = Schemas['BusLine']
export type WireTypeLine = Schemas['WireTypeLine']
export type HabitLine = Schemas['HabitLine']
export type PartRecord = Schemas['PartRecord']
