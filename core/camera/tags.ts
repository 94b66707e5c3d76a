/** The tags of a camera profile by their names in the Digital Negative specification 1.7, chapter 6 and the tag list. */
export const tagNames: Record<number, string> = {
  50708: 'UniqueCameraModel', 50709: 'LocalizedCameraModel', 50721: 'ColorMatrix1', 50722: 'ColorMatrix2', 50723: 'CameraCalibration1', 50724: 'CameraCalibration2', 50725: 'ReductionMatrix1', 50726: 'ReductionMatrix2', 50727: 'AnalogBalance', 50730: 'BaselineExposure',
  50778: 'CalibrationIlluminant1', 50779: 'CalibrationIlluminant2', 50931: 'CameraCalibrationSignature', 50932: 'ProfileCalibrationSignature', 50933: 'ExtraCameraProfiles', 50934: 'AsShotProfileName', 50936: 'ProfileName', 50937: 'ProfileHueSatMapDims',
  50938: 'ProfileHueSatMapData1', 50939: 'ProfileHueSatMapData2', 50940: 'ProfileToneCurve', 50941: 'ProfileEmbedPolicy', 50942: 'ProfileCopyright', 50964: 'ForwardMatrix1', 50965: 'ForwardMatrix2', 50981: 'ProfileLookTableDims', 50982: 'ProfileLookTableData',
  51107: 'ProfileHueSatMapEncoding', 51108: 'ProfileLookTableEncoding', 51109: 'BaselineExposureOffset', 51110: 'DefaultBlackRender', 52529: 'CalibrationIlluminant3', 52530: 'CameraCalibration3', 52531: 'ColorMatrix3', 52532: 'ForwardMatrix3',
  52533: 'IlluminantData1', 52534: 'IlluminantData2', 52535: 'IlluminantData3', 52537: 'ProfileHueSatMapData3', 52538: 'ReductionMatrix3', 52543: 'RGBTables', 52544: 'ProfileGainTableMap2', 52551: 'ProfileDynamicRange', 52552: 'ProfileGroupName',
};

/** Those of a profile that the computation reads. */
export const T = { camera: 50708, color: [50721, 50722], illuminant: [50778, 50779], name: 50936, signature: 50932, mapDims: 50937, map: [50938, 50939], curve: 50940, embed: 50941, copyright: 50942, forward: [50964, 50965], lookDims: 50981, look: 50982, mapEncoding: 51107, lookEncoding: 51108, exposure: 51109 } as const;

/**
 * Correlated color temperature, in kelvin, of an EXIF LightSource code; null where it is none. Values as the
 * specification's reference procedure takes them, ranges of fluorescent lamps (EXIF 2.3) at their middle.
 */
export function illuminantKelvin(code: number): number | null {
  const table: Record<number, number> = { 1: 5500, 2: 4150, 3: 2850, 4: 5500, 9: 5500, 10: 6500, 11: 7500, 12: 6400, 13: 5050, 14: 4150, 15: 3525, 16: 2925, 17: 2850, 18: 5500, 19: 6500, 20: 5500, 21: 6500, 22: 7500, 23: 5000, 24: 3200 };
  return table[code] ?? null;
}
