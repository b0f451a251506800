import { benchHeatVersusC } from './heat/versus-c';
benchHeatVersusC();
