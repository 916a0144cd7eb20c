import { decodePicture } from "@/engine/node/decodePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { ExportSettings, exportNoise } from "@/contracts/exportSettings";
import { defaultPlan } from "@/core/plan/defaultPlan";
const cpu=async <T>(name:string,f:()=>Promise<T>)=>{const a=process.cpuUsage(),t=performance.now();const r=await f();const b=process.cpuUsage(a);console.log(name.padEnd(8),((b.user)/1e6).toFixed(2),(b.system/1e6).toFixed(2),"wall",((performance.now()-t)/1e3).toFixed(2));return r};
for(let k=0;k<2;k++){
for(const [file,format] of [["/tmp/look/big.jpg","jpeg"],["/tmp/look/big16.tif","tiff16"]] as const){
const s=ExportSettings.parse({format});
const d=await cpu("decode",()=>decodePicture(file,"/tmp/look/x-full"));
const r=await cpu("render",()=>renderPicture(d,defaultPlan(),{depth:format==="jpeg"?8:16,noise:exportNoise(s) as never,threads:1}));
await cpu("write",()=>writePrint(r,s,"/tmp/look/x."+format));
}}
