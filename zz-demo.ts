import { writeFileSync } from 'node:fs';
import './core/run/exact-math.ts';
import { readPython } from './core/language/python/read.ts';
import { placed } from './core/language/edit.ts';
import { barrow, trowel, type Kit } from './core/kit/kit.ts';
import { mats } from './core/yard/mats.ts';
import { newProject, writeProject, readProject, type Project } from './core/project.ts';
import { lookOver } from './core/language/lookover/lookover.ts';
import { rehearse } from './core/run/interpreter.ts';
import { findings } from './core/trace/findings.ts';
const mat=(n:string)=>mats.find(m=>m.name===n)!;
type One={id:string;name:string;kit?:Kit;mat?:string;text:string;note:string;then?:(p:Project)=>Project;inputs?:any[]};
const list:One[]=[
{id:'silent-striker',name:'The silent striker',note:'When set off, the striker swings to the bell and back, twice.\nThen the wheels roll a little ahead.',text:`def main():
    for _ in range(2):
        servo_w.angle(120)
        wait(0.5)
        servo_w.angle(40)
        wait(0.5)
    wheels.drive(cm=12, power=45, ending="brake")


run(main)`},
{id:'two-warnings',name:'Two warnings',note:'First a snowflake is shown, so that all can see it.\nThen the thermometer.',text:`def main():
    display.show(Picture("...#... .#.#.#. ..###.. .#.#.#. ...#..."))
    display.show(Picture("...#... ...#... ...#... ..###.. ..###.."))
    wait(2)
    display.dark()


run(main)`},
{id:'to-the-bench',name:'To the bench',note:'Drive to the bench and stop there.',text:`def main():
    wheels.run(40, 40)
    left_lamp.on()
    wait(1.5)
    right_lamp.on()


run(main)`},
{id:'the-short-errand',name:'The short errand',note:'Roll ahead for a while, then stop and beep.',text:`def main():
    wheels.run(45, 45)
    wheels.stop("brake")
    beep()


run(main)`},
{id:'both-motors-forward',name:'Both motors forward',note:'Both motors run, so the robot drives straight along the aisle.',text:`def main():
    left_wheel.run(40)
    right_wheel.run(40)
    wait(1.5)
    left_wheel.stop("brake")
    right_wheel.stop("brake")


run(main)`},
{id:'left-at-the-fern',name:'Left at the fern',mat:'Potting floor',note:'Drive to the fern, turn left, drive on.\nSend it to Barrow 7: it was put together again yesterday.',text:`def main():
    wheels.drive(cm=30, power=45, ending="brake")
    wheels.turn(left=90, power=35, ending="brake")
    wheels.drive(cm=20, power=45, ending="brake")


run(main)`},
{id:'past-the-seedlings',name:'Past the seedlings',mat:'Potting floor',note:'Drive fast to the mark, then turn by 90 degrees and drive on, along the edge.',text:`def main():
    wheels.run(80, 80)
    wait(1)
    wheels.stop("coast")
    wait(0.6)
    wheels.turn(right=90, power=60, ending="coast")
    wheels.drive(cm=30, power=45, ending="brake")


run(main)`},
{id:'four-sides',name:'Four sides',mat:'Potting floor',note:'Drive along the four sides of the bed, and stand again where it began.',text:`def main():
    for _ in range(4):
        wheels.drive(cm=30, power=45, ending="brake")
        wheels.face(90, power=35)


run(main)`},
{id:'the-patient-gate',name:'The patient gate',note:'Drive on until something is 12 cm ahead, then stop.',text:`def main():
    wheels.run(30, 30)
    wait_until(lambda: distance.cm() == 12)
    wheels.stop("brake")
    beep()


run(main)`},
{id:'half-a-vent',name:'Half a vent',note:'The stick of the gamepad opens the vent: all the way left is shut, all the way right is open.',text:`def main():
    while True:
        striker.share(stick("left, left-right"))
        wait_ms(20)


run(main)`},
{id:'the-forgotten-song',name:'The forgotten song',note:'Drive to the hoop, play the song, and count the errands.',text:`def song():
    play("G4 A4 B4*2 - D5")


def main():
    global errands
    wheels.drive(cm=40, power=45, ending="brake")
    errands += 1


run(main)`},
{id:'corner-lamp',name:'The corner lamp',note:'Light the pixel in the lower right corner, and the one above it.',text:`def main():
    display.dark()
    display.pixel(4, 6, "on")
    wait(1)
    display.pixel(3, 6, "on")
    wait(2)


run(main)`},
{id:'five-drips',name:'Five drips',note:'Five drips are counted; each one lights the next pixel of the row, from the first to the last.',text:`def main():
    global drip
    put_at_end(3, drips)
    put_at_end(1, drips)
    put_at_end(4, drips)
    put_at_end(2, drips)
    put_at_end(5, drips)
    for drip in from_to(1, how_many(drips), 1):
        tone(220 + 60 * place_of(whole(drip), drips), 0.2)
        display.pixel(whole(drip), 2, "on")
    wait(1)


run(main)`},
{id:'the-lost-half',name:'The lost half',note:'Drive to the hoop, turn round, drive back.',text:`def main():
    wheels.drive(cm=60, power=45, ending="brake")
    beep()


run(main)`,then:(p)=>{const r=read(`def main():
    wheels.turn(right=180, power=35, ending="brake")
    wheels.drive(cm=60, power=45, ending="brake")


run(main)`,barrow);const steps=r.stacks[0].steps.slice(1).map((s,i)=>({...s,id:`lost${i}`}));return {...p,program:{...p.program,stacks:[...p.program.stacks,{id:'slost',x:60,y:210,steps}]}}}},
{id:'bright-bean',name:'Bright as a bean',kit:{...trowel,parts:trowel.parts.map(x=>x.type==='lamp'?{...x,ohm:0,colour:'red'}:x)} as Kit,mat:'Frost bench',note:'The lamp blinks when it freezes.',text:`def main():
    for _ in range(6):
        left_lamp.on()
        wait(0.4)
        left_lamp.off()
        wait(0.4)


run(main)`},
];
const head=(k:Kit)=>k.device==='barrow'?`from mossbell import *

distance = Distance("10")
left_line = Line("20")
right_line = Line("30")
left_wheel = Motor("P")
right_wheel = Motor("Q")
striker = Servo("U")
servo_w = Servo("W")
display = Display()
left_lamp = Lamp("left")
right_lamp = Lamp("right")
wheels = Wheels(left="P", right="Q", diameter_mm=68, track_mm=124)
drips = []
errands = 0
drip = 0


`:`from mossbell import *

left_lamp = Lamp("left")


`;
function read(text:string,k:Kit){const r=readPython(head(k)+text+'\n');if(!r.ok){console.log(text,r.problems);throw new Error('read')}
 const used=new Set(JSON.stringify(r.program.stacks)+JSON.stringify(r.program.routines));
 return {...r.program,variables:r.program.variables.filter(v=>(JSON.stringify(r.program.stacks)+JSON.stringify(r.program.routines)).includes(v.id))}}
for(const o of list){const kit=o.kit??barrow;let p:Project={...newProject(o.name,kit,mat(o.mat??'Long aisle')),program:placed(read(o.text,kit)),notebook:o.note};if(o.then)p=o.then(p);
 const text=writeProject(p);const back=readProject(text,o.id);if(!back.ok){console.log(o.id,back.problem);continue}
 writeFileSync(`demo/projects/${o.id}.mossbell.json`,text);
 console.log('####',o.id,lookOver({program:p.program,kit,mat:p.mat}).map(r=>`${r.rule}`).join(', '));
 try{const t=rehearse({program:p.program,kit,mat:p.mat,seed:1,limitS:30});console.log('   ',t.ended,findings(t,p.program).map(f=>`${f.rule}: ${f.says}`).join('\n     '))}catch(e){console.log('   ',(e as Error).message)}
}
