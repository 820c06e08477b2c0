export { nextStep, type NextStep, type Stop, type StudyProgress } from './nextStep.js';
