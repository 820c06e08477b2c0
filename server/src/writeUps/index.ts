export { dropLoosePictures } from './pictures.js';
export { writeUpRoutes } from './routes.js';
